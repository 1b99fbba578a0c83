import './mailbox.css'
import { PictureOutlined } from '@ant-design/icons'
import { Alert } from 'antd'
import type { ReactNode } from 'react'
import { Link, useParams } from 'react-router'
import { useMail, useMails } from '../api/queries.ts'

const timeOf = (instant: number): string => new Date(instant).toLocaleTimeString('en-GB')

/** What has arrived at the mailbox stand-in that ships with the application. */
export function MailboxPlace(): ReactNode {
  const { mail: id } = useParams()
  const mails = useMails()
  const mail = useMail(id)
  return (
    <main className="mailbox-place">
      <section aria-label="Messages">
        <h1>Mailbox</h1>
        <p className="quiet">
          A stand-in on this machine: mails to any address end here, and none leaves.
        </p>
        {mails.error && <Alert type="error" showIcon title={mails.error.message} />}
        {mails.data?.length === 0 && (
          <p>
            Nothing has arrived yet. Link an e-mail to a detection on the Bench, and run a clip as
            live.
          </p>
        )}
        <ul>
          {mails.data?.map((m) => (
            <li key={m.id}>
              <Link to={`/mailbox/${m.id}`} className={m.id === id ? 'mail chosen' : 'mail'}>
                <strong>{m.subject}</strong>
                <span className="quiet">
                  to {m.to} · arrived <span className="figures">{timeOf(m.receivedAt)}</span>{' '}
                  {m.pictures > 0 && <PictureOutlined aria-label={`${m.pictures} picture`} />}
                </span>
              </Link>
            </li>
          ))}
        </ul>
      </section>
      <article aria-label="Message">
        {mail.error && <Alert type="error" showIcon title={mail.error.message} />}
        {mail.data && (
          <>
            <h2>{mail.data.subject}</h2>
            <p className="quiet">
              From {mail.data.from} to {mail.data.to}
            </p>
            <pre>{mail.data.text.trim()}</pre>
            {mail.data.attachments.map((a, i) =>
              a.type.startsWith('image/') ? (
                <figure key={a.name}>
                  <img src={`/api/mailbox/${mail.data.id}/${i}`} alt="The moment of the trigger" />
                  <figcaption className="quiet">
                    {a.name}, {Math.round(a.bytes / 1024)} KB
                  </figcaption>
                </figure>
              ) : (
                <p key={a.name}>{a.name}</p>
              )
            )}
          </>
        )}
        {!id && mails.data && mails.data.length > 0 && <p className="quiet">Choose a message.</p>}
      </article>
    </main>
  )
}
