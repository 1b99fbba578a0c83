import { problemWords } from '../../../core/messages/errorWords.ts'
import { common } from '../../../core/messages/en/common.ts'
import { lookBack } from '../../../core/messages/en/bench/lookBack.ts'
import { clipBar as msg } from '../../../core/messages/en/bench/clips.ts'
import './clips.css'
import '../bench.css'
import {
  DeleteOutlined,
  EditOutlined,
  UnorderedListOutlined,
  UploadOutlined,
  VideoCameraAddOutlined
} from '@ant-design/icons'
import { Alert, App, Button, Input, Popover, Progress, Select } from 'antd'
import { Suspense, memo, useRef, useState, type ReactNode } from 'react'
import type { ClipView } from '../../../core/api.ts'
import { request } from '../../api/client.ts'
import { SaveAsClip } from '../lookBack/SaveAsClip.tsx'
import type { Range } from '../selection.ts'
import type { Upload } from './upload.ts'
import { lazyPart } from '../../lazyPart.tsx'

const RecordClip = lazyPart(() => import('./RecordClip.tsx'), 'RecordClip')
/** Pickers are heavy, and seldom opened here. */
const MomentPicker = lazyPart(() => import('../../words/MomentPicker.tsx'), 'MomentPicker')

export interface ClipBarProps {
  clips: ClipView[]
  clip: ClipView | null
  timeZone: string
  upload: Upload
  onChoose: (id: string) => void
  onChanged: () => void
  /** Opens the making of a clip; null where the camera has no simulated scene. */
  onMake: (() => void) | null
  /** Opens the list of all clips with their counts. */
  onAll: () => void
  live: boolean
  onLive: (live: boolean) => void
  /** What the camera reported in the past is on show. */
  back: boolean
  onBack: (back: boolean) => void
  /** What is looked back at. */
  range: Range | null
  /** Whose live picture can be recorded; null: no device shows the camera. */
  recordable: string | null
  onRecorded: (clip: string) => void
}

const lengthOf = (clip: ClipView): string => {
  const seconds = Math.round(clip.frames / clip.fps)
  return seconds >= 60 ? msg.minS(Math.floor(seconds / 60), seconds % 60) : `${seconds} s`
}
const noteOf = (clip: ClipView): string =>
  clip.state === 'ready'
    ? msg.framesS(lengthOf(clip), Math.round(clip.fps * 10) / 10, clip.targets)
    : clip.state === 'analysing'
      ? msg.beingAnalysed
      : msg.notAnalysed

/** Which clip is on the Bench, and a way to add one. */
export const ClipBar = memo(function ClipBar({
  clips,
  clip,
  timeZone,
  upload,
  onChoose,
  onChanged,
  onMake,
  onAll,
  live,
  onLive,
  back,
  onBack,
  range,
  recordable,
  onRecorded
}: ClipBarProps): ReactNode {
  const file = useRef<HTMLInputElement>(null)
  return (
    <div className="clip-bar">
      <Button
        size="small"
        type={live ? 'primary' : 'default'}
        aria-pressed={live}
        onClick={() => onLive(!live)}
      >
        {common.live}
      </Button>
      <Button
        size="small"
        type={back ? 'primary' : 'default'}
        aria-pressed={back}
        onClick={() => onBack(!back)}
      >
        {lookBack.lookBack}
      </Button>
      {clips.length > 0 && (
        <Select
          size="small"
          aria-label={msg.clip}
          className="clip-select"
          value={live || back ? undefined : clip?.id}
          placeholder={msg.selectAClip}
          onChange={onChoose}
          popupMatchSelectWidth={false}
          options={clips.map((c) => ({ value: c.id, label: `${c.name} · ${noteOf(c)}` }))}
        />
      )}
      {clips.length > 1 && !live && !back && (
        <Button
          size="small"
          type="text"
          icon={<UnorderedListOutlined aria-hidden />}
          aria-label={msg.allClips}
          title={msg.allClips}
          onClick={onAll}
        />
      )}
      {clip && !live && !back && (
        <Popover
          trigger="click"
          title={msg.thisClip}
          placement="bottomRight"
          destroyOnHidden
          content={
            <ClipEditor key={clip.id} clip={clip} timeZone={timeZone} onChanged={onChanged} />
          }
        >
          <Button
            size="small"
            type="text"
            icon={<EditOutlined aria-hidden />}
            aria-label={msg.nameAndStartOfThis}
          />
        </Popover>
      )}
      {back && <SaveAsClip range={range} onSaved={onRecorded} />}
      {recordable !== null && !back && (
        <Suspense fallback={null}>
          <RecordClip camera={recordable} onRecorded={onRecorded} />
        </Suspense>
      )}
      <Button
        size="small"
        icon={<UploadOutlined aria-hidden />}
        onClick={() => file.current?.click()}
      >
        {msg.addClip}
      </Button>
      {onMake && (
        <Button size="small" icon={<VideoCameraAddOutlined aria-hidden />} onClick={onMake}>
          {msg.makeClip}
        </Button>
      )}
      <input
        ref={file}
        type="file"
        hidden
        aria-label={msg.clipFile}
        accept="video/*,.avi,.mkv,.mov,.mp4,.ts,.mpg,.webm"
        onChange={(event) => {
          const [chosen] = event.target.files ?? []
          event.target.value = ''
          if (chosen) upload.send(chosen)
        }}
      />
      {upload.sending && (
        <span className="sending">
          <Progress
            size="small"
            percent={Math.round(upload.sending.share * 100)}
            showInfo={false}
          />{' '}
          {upload.sending.share < 1 ? msg.sending : msg.analysing} {upload.sending.name}
          <Button size="small" type="link" onClick={upload.stop}>
            {common.stop}
          </Button>
        </span>
      )}
    </div>
  )
})

/** Name and start; the start decides which hours the clip falls into. */
function ClipEditor({
  clip,
  timeZone,
  onChanged
}: {
  clip: ClipView
  timeZone: string
  onChanged: () => void
}): ReactNode {
  const { message, modal } = App.useApp()
  const [name, setName] = useState(clip.name)
  const [start, setStart] = useState(clip.start)
  const [error, setError] = useState<string | null>(null)
  const keep = async (at = start): Promise<void> => {
    if (name.trim() === clip.name && at === clip.start) return
    try {
      await request('PATCH', `/clips/${clip.id}`, { name, start: at })
      setError(null)
      onChanged()
    } catch (problem) {
      setError(problemWords(problem))
    }
  }
  const remove = (): void =>
    void modal.confirm({
      title: msg.remove(clip.name),
      content: msg.theClipItsTargetsAnd,
      okText: common.remove,
      cancelText: common.cancel,
      okButtonProps: { danger: true },
      onOk: () =>
        // By then this has been closed: the question lies outside of it.
        request('DELETE', `/clips/${clip.id}`).then(
          onChanged,
          (problem: unknown) => void message.error(problemWords(problem))
        )
    })
  return (
    <div className="chip-editor">
      <label className="field">
        <span>{common.name}</span>
        <Input
          value={name}
          maxLength={120}
          onChange={(e) => setName(e.target.value)}
          onBlur={() => void keep()}
          onPressEnter={() => void keep()}
        />
      </label>
      <div className="field">
        <span>{msg.startSiteTime(timeZone)}</span>
        <Suspense fallback={null}>
          <MomentPicker
            label={msg.startSiteTime(timeZone)}
            value={start}
            timeZone={timeZone}
            seconds
            required
            onChange={(at) => {
              if (at === null) return
              setStart(at)
              void keep(at)
            }}
          />
        </Suspense>
      </div>
      {error && <Alert type="error" title={error} />}
      <Button size="small" icon={<DeleteOutlined aria-hidden />} onClick={remove}>
        {msg.removeTheClip}
      </Button>
    </div>
  )
}
