import { said } from '../../messages/said.ts'
import type { Walk, WalkActor } from '../../formats/walk.ts'
import { groundAt } from '../../scene/camera.ts'
import type { Ask, Draft, Found, Gap } from '../../proving/drafts.ts'
import { silence } from '../../proving/pictures.ts'
import { onStage } from '../../proving/shapeChecks.ts'
import { actor, plainWalk, secondsOf, type Stage, type Way } from '../../proving/stage.ts'
import type { FaceDetection } from './schema.ts'

/** A walk's last moments, in which nothing more must happen. */
const TAIL = 1.5
/** In a scene, somebody on no list. */
const STRANGER = 'stranger'
/** Metres per second of somebody who looks where they go. */
const SPEED = 1.2

/**
 * Somebody who comes towards the camera at the middle of the picture: with and without a mask,
 * listed and not, near and too far.
 */
export const faceChecks = (ask: Ask, d: FaceDetection): Found =>
  onStage(ask, (stage) => onFaces(d, stage))

function onFaces(d: FaceDetection, stage: Stage): Found {
  const near = nearWay(stage)
  if (!near)
    return {
      drafts: [],
      gaps: [{ about: 'face', side: 'inside', words: said('checkGaps.noGround') }],
      main: null
    }
  const largest = (way: Way, mask = false): { w: number; h: number; time: number } => {
    const tracks = stage.tracksOf(
      plainWalk(Math.ceil(secondsOf(way, SPEED) + 1), [actor('adult', way, { speed: SPEED, mask })])
    )
    let most = { w: 0, h: 0, time: 0 }
    for (const [key, f] of tracks.faces ?? [])
      if (f.w > most.w) most = { w: f.w, h: f.h, time: Number(key.split(/\D+/)[0]) / stage.fps }
    return most
  }
  const [far, close] = near
  const good: Way = [far, close]
  const wear = d.mask === 'with'
  const listed = d.list === 'listed' ? (d.faces[0] ?? STRANGER) : undefined
  const walk = (way: Way, more: Partial<WalkActor> = {}): Walk =>
    plainWalk(Math.ceil(secondsOf(way, SPEED) + TAIL), [
      actor('adult', way, { speed: SPEED, mask: wear, ...(listed && { name: listed }), ...more })
    ])
  const gaps: Gap[] = []
  const big = largest(good)
  if (big.w < d.faceMin.w || big.h < d.faceMin.h)
    return {
      drafts: [],
      gaps: [
        {
          about: 'face',
          side: 'inside',
          words: said('checkGaps.faceNeverLarge', close[1], big.w, big.h, d.faceMin.w, d.faceMin.h)
        }
      ],
      main: null
    }
  const trigger = (w: Walk): Draft['expect'] => ({ what: 'trigger', from: 0, to: w.seconds })
  const drafts: Draft[] = [
    {
      key: 'face.near',
      name: wear
        ? said('checkNames.faceNearMask')
        : d.mask === 'without'
          ? said('checkNames.faceNearNoMask')
          : said('checkNames.faceNear'),
      about: 'face',
      side: 'inside',
      walk: walk(good),
      expect: trigger(walk(good))
    }
  ]
  // As far away as a face is just too small.
  const tooFar = [...Array(40).keys()]
    .map((i): Way => [
      far,
      [far[0] + ((close[0] - far[0]) * i) / 40, far[1] + ((close[1] - far[1]) * i) / 40]
    ])
    .filter((way) => {
      const f = largest(way)
      return f.w > 0 && (f.w < d.faceMin.w * 0.92 || f.h < d.faceMin.h * 0.92)
    })
    .at(-1)
  if (tooFar)
    drafts.push({
      key: 'face.far',
      name: said('checkNames.faceFar'),
      about: 'face',
      side: 'outside',
      walk: walk(tooFar),
      expect: silence
    })
  else
    gaps.push({
      about: 'face',
      side: 'outside',
      words: said('checkGaps.faceAlwaysLarge')
    })
  drafts.push({
    key: 'face.away',
    name: said('checkNames.faceAway'),
    about: 'nuisance',
    side: 'outside',
    walk: walk([close, far]),
    expect: silence
  })
  const child = walk(good, { kind: 'child' })
  if (
    [...(stage.tracksOf(child).faces?.values() ?? [])].some(
      (f) => f.w >= d.faceMin.w * 1.1 && f.h >= d.faceMin.h * 1.1
    )
  )
    drafts.push({
      key: 'face.child',
      name: said('checkNames.childFace'),
      about: 'passes',
      side: 'inside',
      walk: child,
      expect: trigger(child)
    })
  if (d.holdOffSeconds === 0) {
    const two: Walk = {
      ...walk(good),
      seconds: walk(good).seconds + 4,
      actors: [walk(good).actors[0]!, { ...walk(good).actors[0]!, from: 4 }]
    }
    drafts.push({
      key: 'two',
      name: said('checkNames.twoInTurn'),
      about: 'passes',
      side: 'inside',
      walk: two,
      expect: { what: 'trigger', from: 0, to: two.seconds, times: 2 }
    })
  }
  if (d.mask !== 'any') {
    drafts.push({
      key: 'mask.as-asked',
      name: wear ? said('checkNames.withMask') : said('checkNames.withoutMask'),
      about: 'mask',
      side: 'inside',
      walk: walk(good),
      expect: trigger(walk(good))
    })
    drafts.push({
      key: 'mask.other',
      name: wear ? said('checkNames.withoutMaskNot') : said('checkNames.withMaskNot'),
      about: 'mask',
      side: 'outside',
      walk: walk(good, { mask: !wear }),
      expect: silence
    })
  }
  if (d.list !== 'any' && d.faces.length) {
    const known: Partial<WalkActor> = { name: d.faces[0] }
    const [inside, outside] =
      d.list === 'listed' ? [known, { name: STRANGER }] : [{ name: STRANGER }, known]
    drafts.push({
      key: 'list.as-asked',
      name:
        d.list === 'listed'
          ? said('checkNames.knownFace', d.faces[0]!)
          : said('checkNames.stranger'),
      about: 'list',
      side: 'inside',
      walk: walk(good, inside),
      expect: trigger(walk(good))
    })
    drafts.push({
      key: 'list.other',
      name:
        d.list === 'listed'
          ? said('checkNames.strangerNot')
          : said('checkNames.knownFaceNot', d.faces[0]!),
      about: 'list',
      side: 'outside',
      walk: walk(good, outside),
      expect: silence
    })
  }
  return { drafts, gaps, main: { draft: drafts[0]! } }
}

/** A way towards the camera, as near as a whole figure is still seen. */
function nearWay({ pose }: Stage): [readonly [number, number], readonly [number, number]] | null {
  const foot = groundAt(pose, 0.5, 0.97)
  const far = groundAt(pose, 0.5, 0.5)
  if (!foot || foot.z > 40) return null
  const z = Math.max(1.2, foot.z)
  return [
    [0, Math.min(z + 8, far ? Math.max(z + 3, far.z) : z + 8)],
    [0, z]
  ]
}
