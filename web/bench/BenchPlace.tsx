import { problemWords } from '../../core/messages/errorWords.ts'
import { common } from '../../core/messages/en/common.ts'
import { Alert } from 'antd'
import { useEffect, useState, type ReactNode } from 'react'
import { Navigate, useParams } from 'react-router'
import type { BenchView } from '../../core/api.ts'
import { useBench, useSite } from '../api/queries.ts'
import { Bench } from './Bench.tsx'
import { BenchDocument } from './document.ts'
import { stepsOfTab } from '../sync/stepsOfTab.ts'
import { useFlushed } from '../sync/useFlushed.ts'

/** One camera's Bench. Without a camera in the address: the first that has a clip, or the first. */
export function BenchPlace(): ReactNode {
  const { camera } = useParams()
  const site = useSite()
  const bench = useBench(camera)
  if (!camera) {
    if (site.error)
      return <Alert className="notice" type="error" showIcon title={problemWords(site.error)} />
    const first = site.data?.cameras.find((c) => c.clip) ?? site.data?.cameras[0]
    return first ? (
      <Navigate to={`/bench/${first.id}`} replace />
    ) : (
      <p className="waiting">{common.loading}</p>
    )
  }
  if (bench.error && !bench.data)
    return <Alert className="notice" type="error" showIcon title={problemWords(bench.error)} />
  if (!bench.data) return <p className="waiting">{common.loading}</p>
  return <WithDocument key={camera} view={bench.data} />
}

/** The document lives as long as the camera is on the Bench; later readings are taken in, not put in its place. */
function WithDocument({ view }: { view: BenchView }): ReactNode {
  const [document] = useState(() => new BenchDocument(view, stepsOfTab(view.camera.id)))
  useEffect(() => document.adopt(view), [document, view])
  useFlushed(document)
  return <Bench view={view} document={document} />
}
