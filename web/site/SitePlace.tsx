import { common } from '../../core/messages/en/common.ts'
import { problemWords } from '../../core/messages/errorWords.ts'
import { sitePlace as msg } from '../../core/messages/en/site.ts'
import './site.css'
import { EditOutlined, ExportOutlined, PlusOutlined, SearchOutlined } from '@ant-design/icons'
import { Alert, Button, Tooltip } from 'antd'
import { Suspense, useState, type ReactNode } from 'react'
import { Link } from 'react-router'
import type { SiteView } from '../../core/api.ts'
import { atSite } from '../api/here.ts'
import { useSite } from '../api/queries.ts'
import { useDevices } from '../devices/useDevices.ts'
import { lazyPart } from '../lazyPart.tsx'
import { Findings } from '../readiness/Findings.tsx'
import { useReadiness } from '../readiness/useReadiness.ts'
import { ConflictNote } from '../sync/ConflictNote.tsx'
import { SyncBar } from '../sync/SyncBar.tsx'
import { DemoCard } from './DemoCard.tsx'
import { CameraCard } from './CameraCard.tsx'
import { Nuisances } from './Nuisances.tsx'
import { TodaysTriggers } from './TodaysTriggers.tsx'
import { useCamerasDocument } from './useCamerasDocument.ts'

const SiteSetup = lazyPart(() => import('./SiteSetup.tsx'), 'SiteSetup')
const CameraDialog = lazyPart(() => import('./SiteDialogs.tsx'), 'CameraDialog')
const DeleteCamera = lazyPart(() => import('./SiteDialogs.tsx'), 'DeleteCamera')
const SiteDialog = lazyPart(() => import('./SiteDialogs.tsx'), 'SiteDialog')

/** More than these are shown on request. */
const FIRST = 6

/** The site: first what it is, then its cameras. */
export function SitePlace(): ReactNode {
  const site = useSite()
  if (site.error)
    return <Alert className="notice" type="error" showIcon title={problemWords(site.error)} />
  if (!site.data) return <p className="waiting">{common.loading}</p>
  return site.data.isSetUp ? <Cameras site={site.data} /> : <SiteSetup site={site.data} />
}

type Open = { what: 'site' | 'new' } | { what: 'edit' | 'delete'; camera: string } | null

/** The cameras of the site as cards, each with its readiness; and what is still missing, worst first. */
function Cameras({ site }: { site: SiteView }): ReactNode {
  const { document, state } = useCamerasDocument(site)
  const readiness = useReadiness()
  const devices = useDevices()
  const [all, setAll] = useState(false)
  const [open, setOpen] = useState<Open>(null)
  const close = (): void => setOpen(null)
  const findings = readiness.data?.findings ?? []
  const names = new Map(
    [...site.cameras, ...(devices.data ?? [])].map(({ id, name }) => [id, name])
  )
  const blocking = findings.filter(({ severity }) => severity === 'blocking').length
  const summary = (id: string) => site.cameras.find((c) => c.id === id)
  const chosen = open && 'camera' in open ? state.cameras.find((c) => c.id === open.camera) : null
  const { settings, cameras } = state
  return (
    <main className="site-place">
      <header>
        <div>
          <h1>{settings.name}</h1>
          <p className="quiet">{msg.cameras(cameras.length, settings.timeZone)}</p>
        </div>
        <span className="grow" />
        <SyncBar state={state} document={document} />
        <Tooltip title={msg.exportSays}>
          <Button
            icon={<ExportOutlined aria-hidden />}
            href={atSite('/archive')}
            download
            aria-label={msg.exportSite}
          />
        </Tooltip>
        <Button icon={<EditOutlined aria-hidden />} onClick={() => setOpen({ what: 'site' })}>
          {msg.editSite}
        </Button>
        <Button icon={<PlusOutlined aria-hidden />} onClick={() => setOpen({ what: 'new' })}>
          {msg.addCamera}
        </Button>
      </header>
      {state.conflict && <ConflictNote conflict={state.conflict} document={document} />}
      <div className="site-body">
        <div className="site-left">
          <DemoCard />
          {cameras.length === 0 && (
            <section className="no-cameras">
              <p>{msg.noCameras}</p>
              <div className="row">
                <Link to="/devices?add=1">
                  <Button type="primary" icon={<SearchOutlined aria-hidden />}>
                    {msg.findDevices}
                  </Button>
                </Link>
                <Button onClick={() => setOpen({ what: 'new' })}>{msg.addCamera}</Button>
              </div>
            </section>
          )}
          <ul className="camera-cards">
            {cameras.map((camera, i) => (
              <CameraCard
                key={camera.id}
                id={camera.id}
                name={camera.settings.name}
                summary={summary(camera.id)}
                steps={readiness.data?.cameras.find(({ id }) => id === camera.id)?.steps}
                first={i === 0}
                last={i === cameras.length - 1}
                onMove={(by) => document.move(camera.id, by)}
                onOpen={(what) => setOpen({ what, camera: camera.id })}
              />
            ))}
          </ul>
          {cameras.length > 0 && <TodaysTriggers site={site} />}
          <Nuisances />
        </div>
        {cameras.length > 0 && (
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
        )}
      </div>
      <Suspense fallback={null}>
        {open?.what === 'site' && (
          <SiteDialog
            settings={settings}
            cameras={site.cameras}
            onSave={(changed) => document.setSite(changed)}
            onClose={close}
          />
        )}
        {open?.what === 'new' && (
          <CameraDialog
            camera={null}
            site={settings}
            onSave={(camera) => void document.add(camera)}
            onClose={close}
          />
        )}
        {open?.what === 'edit' && chosen && (
          <CameraDialog
            camera={{ name: chosen.settings.name, surroundings: chosen.settings.surroundings }}
            site={settings}
            onSave={(camera) => document.edit(chosen.id, { ...chosen.settings, ...camera })}
            onClose={close}
          />
        )}
        {open?.what === 'delete' && chosen && (
          <DeleteCamera
            name={chosen.settings.name}
            detections={summary(chosen.id)?.detections ?? 0}
            clips={summary(chosen.id)?.clips ?? 0}
            onDelete={() => document.remove(chosen)}
            onClose={close}
          />
        )}
      </Suspense>
    </main>
  )
}
