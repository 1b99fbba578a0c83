import { common } from '../../core/messages/en/common.ts'
import { problemWords } from '../../core/messages/errorWords.ts'
import { sitePlace as msg } from '../../core/messages/en/site.ts'
import './site.css'
import { Alert, Button } from 'antd'
import { useState, type ReactNode } from 'react'
import { Link } from 'react-router'
import type { CameraSummary } from '../../core/api.ts'
import { useSite } from '../api/queries.ts'
import { useDevices } from '../devices/useDevices.ts'
import { Findings } from '../readiness/Findings.tsx'
import { ReadinessStrip } from '../readiness/ReadinessStrip.tsx'
import { useReadiness } from '../readiness/useReadiness.ts'
import { TodaysTriggers } from './TodaysTriggers.tsx'

/** More than these are shown on request. */
const FIRST = 6

/** A camera's picture: of a clip, or what its device shows now. */
function CameraPicture({ camera }: { camera: CameraSummary }): ReactNode {
  const [failed, setFailed] = useState(false)
  if (failed) return <span className="no-picture">{msg.noPictureYet}</span>
  return (
    <img
      src={
        camera.clip
          ? `/api/clips/${camera.clip}/picture?at=10`
          : `/api/cameras/${camera.id}/live.jpg`
      }
      alt=""
      width="320"
      height="180"
      onError={() => setFailed(true)}
    />
  )
}

/** The cameras of the site as cards, each with its readiness; and what is still missing, worst first. */
export function SitePlace(): ReactNode {
  const site = useSite()
  const readiness = useReadiness()
  const devices = useDevices()
  const [all, setAll] = useState(false)
  if (site.error)
    return <Alert className="notice" type="error" showIcon title={problemWords(site.error)} />
  if (!site.data) return <p className="waiting">{common.loading}</p>
  const { cameras, timeZone } = site.data
  const findings = readiness.data?.findings ?? []
  const names = new Map([...cameras, ...(devices.data ?? [])].map(({ id, name }) => [id, name]))
  const blocking = findings.filter(({ severity }) => severity === 'blocking').length
  return (
    <main className="site-place">
      <header>
        <h1>{site.data.name}</h1>
        <p className="quiet">{msg.cameras(cameras.length, timeZone)}</p>
      </header>
      <div className="site-body">
        <div className="site-left">
          <ul className="camera-cards">
            {cameras.map((camera) => {
              const ready = readiness.data?.cameras.find(({ id }) => id === camera.id)
              return (
                <li key={camera.id}>
                  <Link to={`/bench/${camera.id}`} className="camera-card">
                    <CameraPicture camera={camera} />
                    <strong>{camera.name}</strong>
                    <span className="quiet">
                      {camera.detections === 0 ? msg.noDetections : msg.drawn(camera.detections)}
                    </span>
                    {ready && <ReadinessStrip steps={ready.steps} />}
                  </Link>
                </li>
              )
            })}
          </ul>
          <TodaysTriggers site={site.data} />
        </div>
        <section className="site-findings" aria-label={msg.issues}>
          <h2>
            {readiness.data
              ? findings.length === 0
                ? msg.noIssuesFound
                : msg.blocking(findings.length, blocking)
              : msg.checking}
          </h2>
          {readiness.error && <Alert type="error" title={problemWords(readiness.error)} />}
          <Findings findings={all ? findings : findings.slice(0, FIRST)} names={names} />
          {findings.length > FIRST && (
            <Button type="text" onClick={() => setAll(!all)}>
              {all ? msg.showFewer : msg.showMore(findings.length - FIRST)}
            </Button>
          )}
        </section>
      </div>
    </main>
  )
}
