import { Failure } from '../../../core/errors.ts'
import { said } from '../../../core/messages/said.ts'
import { copyTo as msg } from '../../../core/messages/en/bench/shapes.ts'
import type { BenchView, CameraSummary, SavedDetection } from '../../../core/api.ts'
import { isInMetres, type Detection } from '../../../core/formats/plan.ts'
import { copyShape, scaledSize } from '../../../core/scene/copy.ts'
import { measureScene } from '../../../core/scene/marks.ts'
import type { CameraPose } from '../../../core/scene/camera.ts'
import { request } from '../../api/client.ts'
import { noteHeaders } from '../../api/note.ts'
import { newId } from '../../sync/newId.ts'
import { isClosed, pointsOf, shapeFault, withPoints } from '../picture/shape.ts'
import { freeName } from '../rail/freeName.ts'
import { hasShape } from '../../../core/kinds/schemas.ts'

/** A detection as it would be on another camera, and what is to be said of it. */
export function forCamera(
  d: Detection,
  from: CameraPose | null,
  to: CameraPose | null
): { detection: Detection; notes: string[] } {
  const notes: string[] = []
  let detection = d
  if (hasShape(d)) {
    const { points, through, scale, cut } = copyShape(pointsOf(d), isClosed(d.kind), from, to)
    const fault = shapeFault(d.kind, points)
    if (fault)
      throw new Failure(
        said('shapes.notCopied', said(`shapes.${d.kind === 'line' ? 'line' : 'zone'}`), fault)
      )
    notes.push(through === 'ground' ? msg.atTheSamePlaceOf : msg.atTheSamePlaceOf2)
    if (cut) notes.push(msg.cutOffAtTheEdge)
    detection = scaledSize(
      withPoints(d, points),
      scale,
      through === 'ground' ? (scale * from!.aspect) / to!.aspect : scale
    )
  }
  if (!to && 'size' in detection && detection.size && isInMetres(detection)) {
    const { min, max } = detection.size
    detection = {
      ...detection,
      size: min || max ? { ...(min && { min }), ...(max && { max }) } : undefined
    }
    notes.push(msg.withoutItsSizeInMetres)
  }
  return { detection, notes }
}

/** Copies a detection to another camera. @throws ApiError, or Failure with what stands in the way */
export async function copyTo(
  { id, name }: CameraSummary,
  d: Detection,
  from: CameraPose | null
): Promise<{ said: string; takeBack: () => Promise<unknown> }> {
  const view = await request<BenchView>('GET', `/cameras/${encodeURIComponent(id)}`)
  const { detection: there, notes } = forCamera(
    d,
    from,
    view.scene.marks && measureScene(view.scene.marks).pose
  )
  const detection = { ...there, id: newId(d.kind), name: freeName(d.name, view.detections) }
  const path = `/cameras/${encodeURIComponent(id)}/detections/${detection.id}`
  const headers = noteHeaders(said('edits.copyFromAnotherCamera', d.name))
  const position = Math.max(-1, ...view.detections.map((k) => k.position)) + 1
  const saved = await request<SavedDetection>(
    'PUT',
    path,
    { detection, position, version: 0 },
    { headers }
  )
  return {
    said: [msg.copiedTo(detection.name, name), ...notes].join(', '),
    takeBack: () => request('DELETE', `${path}?version=${saved.version}`, undefined, { headers })
  }
}
