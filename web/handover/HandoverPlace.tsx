import { common } from '../../core/messages/en/common.ts'
import { problemWords } from '../../core/messages/errorWords.ts'
import { handoverPlace as msg } from '../../core/messages/en/handover.ts'
import { wordsOf } from '../../core/messages/words.ts'
import './handover.css'
import { FileDoneOutlined } from '@ant-design/icons'
import { useQueryClient } from '@tanstack/react-query'
import { Alert, Button, Progress } from 'antd'
import { useState, type ReactNode } from 'react'
import type { Role } from '../../core/accounts/accounts.ts'
import type { JobView, RecordView } from '../../core/handover/views.ts'
import { STEPS } from '../../core/handover/views.ts'
import { request } from '../api/client.ts'
import { useSite } from '../api/queries.ts'
import { ChangesSince } from './ChangesSince.tsx'
import { MakeDialog } from './MakeDialog.tsx'
import { Obstacles } from './Obstacles.tsx'
import { RecordCard } from './RecordCard.tsx'
import { ServiceVisit } from './ServiceVisit.tsx'
import { SignDialog } from './SignDialog.tsx'
import { HANDOVER, useHandover, useRecords } from './useHandover.ts'

/** The place where a job is handed over: operators read its records, installers make and sign them. */
export const HandoverPlace = ({ role }: { role: Role }): ReactNode =>
  role === 'installer' ? <Making /> : <Reading />

function Reading(): ReactNode {
  const { data, error } = useRecords()
  return (
    <main className="handover-place">
      <header>
        <h1>{msg.title}</h1>
      </header>
      {error && <Alert type="error" title={problemWords(error)} />}
      {!data && !error && <p className="quiet">{common.loading}</p>}
      {data && <Records records={data.records} />}
    </main>
  )
}

const Records = ({
  records,
  onSign
}: {
  records: readonly RecordView[]
  onSign?: (record: RecordView) => void
}): ReactNode => (
  <section aria-label={msg.records}>
    <h2>{msg.records}</h2>
    {records.length === 0 && <p className="quiet">{msg.noRecords}</p>}
    <ul className="record-cards">
      {records.map((record) => (
        <RecordCard
          key={record.number}
          record={record}
          {...(onSign && { onSign: () => onSign(record) })}
        />
      ))}
    </ul>
  </section>
)

function Making(): ReactNode {
  const { data: view, error } = useHandover()
  const site = useSite()
  const [dialog, setDialog] = useState<'handover' | 'service' | null>(null)
  const [signing, setSigning] = useState<RecordView | null>(null)
  if (error && !view)
    return <Alert className="notice" type="error" showIcon title={problemWords(error)} />
  if (!view) return <p className="waiting">{common.loading}</p>
  const busy = view.job?.state === 'running'
  return (
    <main className="handover-place">
      <header>
        <h1>{msg.title}</h1>
        <span className="grow" />
        <span className="quiet" role="status">
          {view.job?.state === 'made' && msg.made(view.job.number!)}
        </span>
        <Button
          type="primary"
          icon={<FileDoneOutlined aria-hidden />}
          disabled={busy || site.data?.cameras.length === 0}
          onClick={() => setDialog('handover')}
        >
          {msg.make}
        </Button>
      </header>
      <div className="handover-body">
        <div className="handover-left">
          {view.job && view.job.state !== 'made' && <Job job={view.job} />}
          <Records records={view.records} onSign={setSigning} />
          {view.records.length > 0 && <ChangesSince records={view.records} />}
          <ServiceVisit view={view} busy={busy} onFinish={() => setDialog('service')} />
        </div>
        <Obstacles view={view} />
      </div>
      {dialog && (
        <MakeDialog view={view} service={dialog === 'service'} onClose={() => setDialog(null)} />
      )}
      {signing && <SignDialog record={signing} onClose={() => setSigning(null)} />}
    </main>
  )
}

/** How far a record is, or what became of it. */
function Job({ job }: { job: JobView }): ReactNode {
  const queries = useQueryClient()
  const stop = async (): Promise<void> => {
    await request('DELETE', '/handover/job').catch(() => {})
    await queries.invalidateQueries({ queryKey: HANDOVER })
  }
  if (job.state === 'failed')
    return <Alert type="error" showIcon title={msg.failed(wordsOf(job.error ?? ''))} />
  const step = STEPS.indexOf(job.step)
  const share = (step + (job.of ? job.done / job.of : 0)) / STEPS.length
  return (
    <section className="making" aria-label={msg.making} aria-live="polite">
      <div className="row">
        <b>{msg.making}</b>
        <span className="quiet">{msg.stepOf(msg.steps[job.step], job.done, job.of)}</span>
        <span className="grow" />
        <Button size="small" onClick={() => void stop()}>
          {msg.stop}
        </Button>
      </div>
      <Progress percent={Math.round(100 * share)} showInfo={false} size="small" />
    </section>
  )
}
