import { atSite } from '../api/here.ts'
import type { Said } from '../../core/messages/said.ts'
import { common } from '../../core/messages/en/common.ts'
import { benchBar as msg } from '../../core/messages/en/bench/bench.ts'
import './bench.css'
import { SyncStatus, UndoButtons } from '../sync/SyncBar.tsx'
import {
  CompressOutlined,
  ExpandOutlined,
  ExportOutlined,
  HistoryOutlined,
  QuestionCircleOutlined
} from '@ant-design/icons'
import { Button, Dropdown, Select, Tooltip } from 'antd'
import { memo, type ReactNode } from 'react'
import { useNavigate } from 'react-router'
import { useSite } from '../api/queries.ts'
import type { BenchDocument, DocumentState } from './document.ts'

export interface BenchBarProps {
  document: BenchDocument
  status: DocumentState['status']
  /** Why something could not be saved. */
  error: string | null
  /** What would be undone, and done again. */
  undo: Said | null
  redo: Said | null
  camera: { id: string; name: string }
  /** Whether a clip is there to try things on. */
  ready: boolean
  /** What is on show can be replayed: it is a clip. */
  replays: boolean
  onCompare: () => void
  onRun: (speed: number) => void
  onHistory: () => void
  onHelp: () => void
  /** The picture fills the window. */
  fills: boolean
  onFills: (fills: boolean) => void
}

/** Above the Bench: which camera, whether all is kept, and what can be done with all of it. */
export const BenchBar = memo(function BenchBar({
  document,
  status,
  error,
  undo,
  redo,
  camera,
  ready,
  replays,
  onCompare,
  onRun,
  onHistory,
  onHelp,
  fills,
  onFills
}: BenchBarProps): ReactNode {
  const navigate = useNavigate()
  const site = useSite()
  return (
    <div className="bench-bar">
      <Select
        aria-label={common.camera}
        variant="borderless"
        className="camera-select"
        value={camera.id}
        options={(site.data?.cameras ?? [camera]).map((c) => ({ value: c.id, label: c.name }))}
        onChange={(id) => void navigate(`/bench/${id}`)}
        popupMatchSelectWidth={200}
      />
      <SyncStatus status={status} error={error} />
      <span className="grow" />
      <Button disabled={!ready} onClick={onCompare}>
        {msg.compare}
      </Button>
      <Dropdown
        trigger={['click']}
        disabled={!replays}
        menu={{
          items: [
            { key: 1, label: msg.realTime },
            { key: 10, label: msg.tenTimesAsFast },
            { key: 1000, label: msg.asFastAsPossible }
          ],
          onClick: ({ key }) => onRun(Number(key))
        }}
      >
        <Button type="primary">{msg.replayAsLive}</Button>
      </Dropdown>
      <Tooltip title={msg.pictureFills}>
        <Button
          aria-label={msg.pictureFills}
          aria-pressed={fills}
          icon={fills ? <CompressOutlined aria-hidden /> : <ExpandOutlined aria-hidden />}
          onClick={() => onFills(!fills)}
        />
      </Tooltip>
      <Tooltip title={msg.exportThisCamerasPlan}>
        <Button
          aria-label={msg.exportThePlan}
          icon={<ExportOutlined aria-hidden />}
          href={atSite(`/cameras/${camera.id}/plan`)}
          download={`${camera.id}.plan.json`}
        />
      </Tooltip>
      <UndoButtons undo={undo} redo={redo} document={document} />
      <Tooltip title={msg.editHistory}>
        <Button
          aria-label={msg.history}
          icon={<HistoryOutlined aria-hidden />}
          onClick={onHistory}
        />
      </Tooltip>
      <Button
        type="text"
        aria-label={msg.keyboardShortcuts}
        icon={<QuestionCircleOutlined aria-hidden />}
        onClick={onHelp}
      />
    </div>
  )
})
