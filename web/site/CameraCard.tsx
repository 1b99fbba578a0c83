import { atSite } from '../api/here.ts'
import { sitePlace as msg } from '../../core/messages/en/site.ts'
import './site.css'
import { MoreOutlined } from '@ant-design/icons'
import { useState, type ReactNode } from 'react'
import { Link } from 'react-router'
import type { CameraSummary } from '../../core/api.ts'
import type { ReadinessSteps } from '../../core/readiness/index.ts'
import { MoreMenu } from '../shell/MoreMenu.tsx'
import { ReadinessStrip } from '../readiness/ReadinessStrip.tsx'

/** A camera's picture: of a clip, or what its device shows now. */
function CameraPicture({ id, clip }: { id: string; clip: string | null }): ReactNode {
  const [failed, setFailed] = useState(false)
  if (failed) return <span className="no-picture">{msg.noPictureYet}</span>
  return (
    <img
      src={atSite(clip ? `/clips/${clip}/picture?at=10` : `/cameras/${id}/live.jpg`)}
      alt=""
      width="320"
      height="180"
      // Of hundreds of cameras those in sight are asked for their picture.
      loading="lazy"
      onError={() => setFailed(true)}
    />
  )
}

/** One camera of the site: its picture, how ready it is, and what can be done with it. */
export function CameraCard({
  id,
  name,
  summary,
  steps,
  first,
  last,
  onMove,
  onOpen
}: {
  id: string
  name: string
  /** Left out: it has not been saved yet. */
  summary: CameraSummary | undefined
  steps: ReadinessSteps | undefined
  first: boolean
  last: boolean
  onMove: (by: 1 | -1) => void
  onOpen: (what: 'edit' | 'delete') => void
}): ReactNode {
  const detections = summary?.detections ?? 0
  return (
    <li>
      <Link to={`/bench/${id}`} className="camera-card">
        {summary ? (
          <CameraPicture id={id} clip={summary.clip} />
        ) : (
          <span className="no-picture">{msg.noPictureYet}</span>
        )}
        <strong>{name}</strong>
        <span className="quiet">{detections === 0 ? msg.noDetections : msg.drawn(detections)}</span>
        {steps && <ReadinessStrip steps={steps} />}
      </Link>
      <MoreMenu
        label={msg.moreFor(name)}
        icon={<MoreOutlined aria-hidden />}
        className="camera-more"
        placement="bottomRight"
        items={[
          { key: 'edit', label: msg.edit, onClick: () => onOpen('edit') },
          { key: 'earlier', label: msg.moveEarlier, disabled: first, onClick: () => onMove(-1) },
          { key: 'later', label: msg.moveLater, disabled: last, onClick: () => onMove(1) },
          { type: 'divider' },
          { key: 'delete', label: msg.delete, danger: true, onClick: () => onOpen('delete') }
        ]}
      />
    </li>
  )
}
