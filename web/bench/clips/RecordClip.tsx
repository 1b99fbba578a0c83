import { common } from '../../../core/messages/en/common.ts'
import { problemWords, saidOfField } from '../../../core/messages/errorWords.ts'
import { recordClip as msg } from '../../../core/messages/en/bench/clips.ts'
import './clips.css'
import '../bench.css'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { Alert, Button, Popover, Progress, Radio } from 'antd'
import { useEffect, useRef, useState, type ReactNode } from 'react'
import type { RecordingView } from '../../../core/api.ts'
import { request } from '../../api/client.ts'
import { useClock } from '../../words/useClock.ts'

/** What is offered, seconds. */
const LENGTHS = [30, 60, 300, 600] as const
const WATCH_MS = 500

/** Takes the next seconds of the live picture as a clip. */
export function RecordClip({
  camera,
  onRecorded
}: {
  camera: string
  onRecorded: (clip: string) => void
}): ReactNode {
  const clock = useClock()
  const queries = useQueryClient()
  const [open, setOpen] = useState(false)
  const [seconds, setSeconds] = useState<number>(LENGTHS[0])
  const [error, setError] = useState<string | null>(null)
  const path = `/cameras/${encodeURIComponent(camera)}/recordings`
  const key = ['recording', camera]
  const { data: recording } = useQuery({
    queryKey: key,
    queryFn: async () =>
      (await request<{ recording: RecordingView | null }>('GET', path)).recording,
    refetchInterval: ({ state }) => (state.data?.state === 'recording' ? WATCH_MS : false)
  })
  const running = recording?.state === 'recording' ? recording : null

  // One that was seen running and has ended becomes the clip on the Bench.
  const seen = useRef(false)
  useEffect(() => {
    if (running) seen.current = true
    else if (seen.current) {
      seen.current = false
      if (recording?.clip) onRecorded(recording.clip)
    }
  }, [running, recording, onRecorded])

  const ask = async (work: () => Promise<unknown>): Promise<void> => {
    setError(null)
    try {
      await work()
      setOpen(false)
    } catch (problem) {
      setError(problemWords(problem))
    }
    await queries.invalidateQueries({ queryKey: key })
  }
  const start = (): Promise<void> =>
    ask(() => request('POST', path, { name: msg.liveAt(clock.dateAndTime(Date.now())), seconds }))

  if (running) {
    return (
      <span className="recording" role="status">
        <i className="recording-mark" aria-hidden="true" />
        {running.beganAt === null
          ? msg.waitingForThePicture
          : msg.recordingOf(Math.round(running.recorded), running.seconds)}
        <Progress
          size="small"
          percent={Math.round((100 * running.recorded) / running.seconds)}
          showInfo={false}
        />
        <Button size="small" type="link" onClick={() => void ask(() => request('DELETE', path))}>
          {common.stop}
        </Button>
      </span>
    )
  }
  const failure =
    error ??
    (recording?.state === 'failed' && recording.error ? saidOfField(recording.error) : null)
  return (
    <Popover
      trigger="click"
      open={open}
      onOpenChange={setOpen}
      placement="top"
      title={msg.recordAClip}
      content={
        <div className="chip-editor">
          <p className="quiet">{msg.takesTheNext}</p>
          <Radio.Group
            aria-label={msg.length}
            value={seconds}
            options={LENGTHS.map((value) => ({ value, label: msg.lengthOf(value) }))}
            onChange={(e) => setSeconds(e.target.value as number)}
          />
          {failure && <Alert type="error" title={failure} />}
          <Button type="primary" size="small" onClick={() => void start()}>
            {msg.record}
          </Button>
        </div>
      }
    >
      <Button size="small" icon={<i className="recording-mark" aria-hidden="true" />}>
        {msg.recordClip}
      </Button>
    </Popover>
  )
}
