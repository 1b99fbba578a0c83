import { readFile } from 'node:fs/promises'
import { createTransport, type Transporter } from 'nodemailer'
import { pictureAt } from '../../analysis/pictures.ts'
import { emailOf } from '../../core/actions/email.ts'
import { readMot } from '../../core/formats/mot.ts'
import { firstRowOfFrame, rowAt, type TargetRow } from '../../core/targets/tracks.ts'
import type { Clips } from '../clips/clips.ts'
import { readClip } from '../clips/rows.ts'
import type { Database } from '../database.ts'
import { markFailed, markSent, nextDue, type DueDelivery } from './rows.ts'
import { drawSnapshot } from './snapshot.ts'

export interface MailServer {
  host: string
  port: number
  from: string
}

const POLL_MS = 1000
const MOST_ATTEMPTS = 6

/** Sends what triggers have set off, one after the other, again after growing pauses when it fails. */
export class Deliveries {
  private readonly database: Database
  private readonly clips: Clips
  private readonly mail: MailServer
  private readonly transport: Transporter
  private readonly log: (error: unknown) => void
  private timer: NodeJS.Timeout | undefined
  private working: Promise<void> | null = null
  private again = false
  private closed = false

  constructor(database: Database, clips: Clips, mail: MailServer, log: (error: unknown) => void) {
    this.database = database
    this.clips = clips
    this.mail = mail
    this.log = log
    this.transport = createTransport({ host: mail.host, port: mail.port, secure: false, ignoreTLS: true, connectionTimeout: 5000, greetingTimeout: 5000, socketTimeout: 20_000 })
  }

  start(): void {
    this.timer = setInterval(() => this.kick(), POLL_MS)
    this.kick()
  }

  /** Something may be due. */
  kick(): void {
    if (this.closed) return
    if (this.working) {
      this.again = true
      return
    }
    this.working = this.sendDue()
      .catch(this.log)
      .finally(() => {
        this.working = null
        if (this.again) {
          this.again = false
          this.kick()
        }
      })
  }

  async close(): Promise<void> {
    this.closed = true
    clearInterval(this.timer)
    await this.working
    this.transport.close()
  }

  private async sendDue(): Promise<void> {
    for (let due = await nextDue(this.database, Date.now()); due && !this.closed; due = await nextDue(this.database, Date.now())) {
      try {
        await this.send(due)
        await markSent(this.database, due.id)
      } catch (error) {
        const attempts = due.attempts + 1
        const nextAt = attempts >= MOST_ATTEMPTS ? null : Date.now() + 2 ** attempts * 1000
        await markFailed(this.database, due.id, (error as Error).message, nextAt)
      }
    }
  }

  private async send(due: DueDelivery): Promise<void> {
    const target = await this.targetOf(due)
    const { subject, text } = emailOf({ ...due, cls: target?.cls ?? 'unknown' })
    const picture = await pictureAt(this.clips.file(due.clip, 'view.mp4'), due.trigger.time)
    await this.transport.sendMail({
      from: this.mail.from,
      to: due.recipient,
      subject,
      text,
      attachments: [{ filename: 'snapshot.jpg', content: await drawSnapshot(picture, due.detection, target), contentType: 'image/jpeg' }]
    })
  }

  /** The target's row at the moment of the trigger. */
  private async targetOf({ clip: clipId, trigger }: DueDelivery): Promise<TargetRow | null> {
    if (trigger.target === undefined) return null
    const clip = await readClip(this.database, clipId)
    const tracks = readMot(await readFile(this.clips.file(clipId, 'tracks.csv'), 'utf8'), clip.fps, clip)
    for (let i = firstRowOfFrame(tracks, trigger.frame); i < tracks.length && tracks.frame[i] === trigger.frame; i++)
      if (tracks.id[i] === trigger.target) return rowAt(tracks, i)
    return null
  }
}
