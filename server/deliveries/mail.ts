import { said } from '../../core/messages/said.ts'
import { Failure } from '../../core/errors.ts'
import { createTransport, type SendMailOptions, type Transporter } from 'nodemailer'
import type { Mail } from '../../core/formats/actions.ts'
import type { Reach } from '../reach.ts'

/** The mail server of the site; connections are kept for as long as its settings stay the same. */
export class Mailer {
  private readonly reach: Reach
  private kept: { key: string; transport: Transporter } | null = null

  constructor(reach: Reach) {
    this.reach = reach
  }

  /** @throws Error with what the mail server said */
  async send(
    mail: Mail,
    password: string | null,
    message: Omit<SendMailOptions, 'from'>
  ): Promise<string> {
    const key = JSON.stringify([mail, password])
    if (this.kept?.key !== key) {
      this.kept?.transport.close()
      const { host, port } = this.reach('mail', mail.host, mail.port)
      this.kept = {
        key,
        transport: createTransport({
          host,
          port,
          pool: true,
          maxConnections: 2,
          secure: mail.encryption === 'tls',
          // What is asked to be encrypted is never sent in the clear.
          requireTLS: mail.encryption === 'starttls',
          ignoreTLS: mail.encryption === 'none',
          ...(mail.username && { auth: { user: mail.username, pass: password ?? '' } }),
          connectionTimeout: 5000,
          greetingTimeout: 5000,
          socketTimeout: 20_000
        })
      }
    }
    const { response, rejected } = (await this.kept.transport.sendMail({
      ...message,
      from: { name: 'Wardoptic', address: mail.sender }
    })) as { response: string; rejected?: string[] }
    if (rejected?.length) throw new Failure(said('deliveries.mailRejected', rejected.join(', ')))
    return response
  }

  close(): void {
    this.kept?.transport.close()
  }
}
