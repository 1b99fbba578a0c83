import { handoverPlace as msg } from '../../core/messages/en/handover.ts'
import { DownloadOutlined, EditOutlined, FilePdfOutlined } from '@ant-design/icons'
import { Button, Tag, Tooltip } from 'antd'
import type { ReactNode } from 'react'
import type { RecordView } from '../../core/handover/views.ts'
import { digestGroups } from '../../core/handover/digest.ts'
import { atSite } from '../api/here.ts'
import { useClock } from '../words/useClock.ts'
import { SignatureDrawn } from './SignaturePad.tsx'

/** A record: when it was made, how it stands, who has signed. @param onSign left out: it may only be read */
export function RecordCard({
  record,
  onSign
}: {
  record: RecordView
  onSign?: () => void
}): ReactNode {
  const clock = useClock()
  const { number, kind, digest, open, madeAt, by, signatures } = record
  return (
    <li className="record-card">
      <div className="row wrap">
        <h3>{msg.numbered(kind, number)}</h3>
        <span className="quiet">{msg.by(clock.dateAndTime(madeAt), by)}</span>
        <Tag className={open ? 'has-open' : 'is-clean'}>{open ? msg.open(open) : msg.clean}</Tag>
        <span className="grow" />
        <Button
          size="small"
          icon={<FilePdfOutlined aria-hidden />}
          href={atSite(`/records/${number}/pdf`)}
          target="_blank"
        >
          {msg.pdf}
        </Button>
        <Button
          size="small"
          icon={<DownloadOutlined aria-hidden />}
          href={atSite(`/records/${number}/zip`)}
          download
        >
          {msg.zip}
        </Button>
        {onSign && (
          <Button size="small" icon={<EditOutlined aria-hidden />} onClick={onSign}>
            {msg.sign}
          </Button>
        )}
      </div>
      <Tooltip title={msg.digestHelp}>
        <p className="digest quiet">
          {msg.digest} {digestGroups(digest).join(' ')}
        </p>
      </Tooltip>
      {signatures.length > 0 ? (
        <ul className="signed">
          {signatures.map((s, i) => (
            <li key={i}>
              {s.strokes ? (
                <SignatureDrawn strokes={s.strokes} />
              ) : (
                <span className="signature-drawn quiet">{msg.signedOnPaper}</span>
              )}
              <span>
                <b>{s.name}</b> {msg.roles[s.role]}
                <br />
                <span className="quiet">{clock.dateAndTime(s.at)}</span>
              </span>
            </li>
          ))}
        </ul>
      ) : (
        <p className="quiet">{msg.notSigned}</p>
      )}
    </li>
  )
}
