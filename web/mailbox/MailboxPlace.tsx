import { atSite } from '../api/here.ts'
import { problemWords } from '../../core/messages/errorWords.ts'
import { common } from '../../core/messages/en/common.ts'
import { mailboxPlace as msg } from '../../core/messages/en/mailbox.ts'
import './mailbox.css'
import { PictureOutlined } from '@ant-design/icons'
import { Alert } from 'antd'
import type { ReactNode } from 'react'
import { Link, useParams } from 'react-router'
import { useMail, useMails } from '../api/queries.ts'
import { useClock } from '../words/useClock.ts'

/** What has arrived at the mailbox simulator that ships with the application. */
export function MailboxPlace(): ReactNode {
  const { mail: id } = useParams()
  const clock = useClock()
  const mails = useMails()
  const mail = useMail(id)
  return (
    <main className="mailbox-place">
      <section aria-label={common.messages}>
        <h1>{msg.mailbox}</h1>
        <p className="quiet">{msg.aStandInOnThisMachine}</p>
        {mails.error && <Alert type="error" showIcon title={problemWords(mails.error)} />}
        {mails.data?.length === 0 && <p>{msg.noMessagesYetLink}</p>}
        <ul>
          {mails.data?.map((m) => (
            <li key={m.id}>
              <Link to={`/mailbox/${m.id}`} className={m.id === id ? 'mail chosen' : 'mail'}>
                <strong>{m.subject}</strong>
                <span className="quiet">
                  {msg.toArrived(m.to, clock.dateAndSecond(m.receivedAt))}{' '}
                  {m.pictures > 0 && <PictureOutlined aria-label={msg.picture(m.pictures)} />}
                </span>
              </Link>
            </li>
          ))}
        </ul>
      </section>
      <article aria-label={msg.message}>
        {mail.error && <Alert type="error" showIcon title={problemWords(mail.error)} />}
        {mail.data && (
          <>
            <h2>{mail.data.subject}</h2>
            <p className="quiet">{msg.fromTo(mail.data.from, mail.data.to)}</p>
            <pre>{mail.data.text.trim()}</pre>
            {mail.data.attachments.map((a, i) =>
              a.type.startsWith('image/') ? (
                <figure key={a.name}>
                  <img
                    src={atSite(`/mailbox/${mail.data.id}/${i}`)}
                    alt={msg.theMomentOfTheTrigger}
                  />
                  <figcaption className="quiet">{msg.fileOf(a.name, a.bytes)}</figcaption>
                </figure>
              ) : (
                <p key={a.name}>{a.name}</p>
              )
            )}
          </>
        )}
        {!id && mails.data && mails.data.length > 0 && (
          <p className="quiet">{msg.selectAMessage}</p>
        )}
      </article>
    </main>
  )
}
