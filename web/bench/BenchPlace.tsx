import { problemWords } from '../../core/messages/errorWords.ts'
import { benchPlace as msg } from '../../core/messages/en/bench/bench.ts'
import { common } from '../../core/messages/en/common.ts'
import { emptyPlace } from '../../core/messages/en/shell.ts'
import { Alert } from 'antd'
import { useEffect, useState, type ReactNode } from 'react'
import { Navigate, useParams } from 'react-router'
import type { BenchView } from '../../core/api.ts'
import { ApiError } from '../../core/apiError.ts'
import { useBench, useSite } from '../api/queries.ts'
import { EmptyPlace } from '../shell/EmptyPlace.tsx'
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
    if (!site.data) return <p className="waiting">{common.loading}</p>
    const first = site.data.cameras.find((c) => c.clip) ?? site.data.cameras[0]
    return first ? (
      <Navigate to={`/bench/${first.id}`} replace />
    ) : (
      <EmptyPlace name={emptyPlace.noCameras} what={msg.addOneFirst} />
    )
  }
  if (bench.error && !bench.data)
    return bench.error instanceof ApiError && bench.error.status === 404 ? (
      <EmptyPlace name={msg.noSuchCamera} what={msg.itMayHaveBeenDeleted} />
    ) : (
      <Alert className="notice" type="error" showIcon title={problemWords(bench.error)} />
    )
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
