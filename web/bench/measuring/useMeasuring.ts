import { said } from '../../../core/messages/said.ts'
import { useMemo, useState } from 'react'
import type { Point } from '../../../core/geometry/shapes.ts'
import type { Measured } from '../../../core/scene/measure.ts'
import { peopleOf } from '../../../core/scene/peopleOf.ts'
import { measureScene, type SceneMarks } from '../../../core/scene/marks.ts'
import type { Tracks } from '../../../core/targets/tracks.ts'
import { useStable } from '../../stable.ts'
import type { BenchDocument, Scene } from '../document.ts'
import {
  USUAL_HEIGHT,
  USUAL_LENS,
  draftOf,
  judge,
  offOf,
  withPoint,
  withoutLast,
  type Draft
} from './draft.ts'
import type { Measuring } from './MeasuringLayer.tsx'
import type { SceneShown } from './SceneLayer.tsx'

/** What the panel beside the picture needs while a scene is measured. */
export interface MeasuringTool {
  draft: Draft
  measured: Measured | null
  /** Why the marks measure nothing yet. */
  fault: string | null
  off: readonly (number | null)[]
  change: (draft: Draft) => void
  /**
   * Marks from the clip's own people, whose boxes are too rough to tell the lens: it is taken as
   * usual. null: there is no clip.
   */
  fromClip: (() => void) | null
  keep: () => void
  leave: () => void
  back: () => void
  setPoint: () => void
}

export interface SceneOnBench {
  /** The scene as it is kept; null: not measured. */
  pose: Measured['pose'] | null
  open: () => void
  tool: MeasuringTool | null
  measuring: Measuring | null
  shown: SceneShown | null
  grid: boolean
  bands: boolean
  setGrid: (on: boolean) => void
  setBands: (on: boolean) => void
  moveCursor: (to: Point) => void
}

const poseOf = (marks: SceneMarks | null): Measured['pose'] | null => {
  try {
    return marks && measureScene(marks).pose
  } catch {
    // Kept marks have been measured by the server; a plan from elsewhere may say otherwise, and is then not measured.
    return null
  }
}

/** Measuring the scene on the Bench: the marks as they are set, what they tell, and what of it is over the picture. */
export function useMeasuring(
  document: BenchDocument,
  scene: Scene,
  picture: { width: number; height: number } | null,
  tracks: Tracks | null
): SceneOnBench {
  const [draft, setDraft] = useState<Draft | null>(null)
  const [cursor, setCursor] = useState<Point>([0.5, 0.6])
  const [grid, setGrid] = useState(false)
  const [bands, setBands] = useState(false)
  const [figure, setFigure] = useState<Point>([0.5, 0.75])
  const kept = useMemo(() => poseOf(scene.marks), [scene.marks])
  const aspect = picture ? picture.width / picture.height : 16 / 9
  const judged = useMemo(() => draft && judge(draft, aspect), [draft, aspect])
  const measured = judged && 'measured' in judged ? judged.measured : null
  const off = useMemo(() => (draft ? offOf(draft, measured) : []), [draft, measured])
  const pose = draft ? (measured?.pose ?? null) : kept

  const change = (next: Draft): void => setDraft(next)
  const tool: MeasuringTool | null = draft && {
    draft,
    measured,
    fault: judged && 'fault' in judged ? judged.fault : null,
    off,
    change,
    fromClip:
      tracks &&
      (() =>
        change({
          ...draft,
          from: 'people',
          foot: null,
          people: peopleOf(tracks, USUAL_HEIGHT),
          fieldOfView: draft.fieldOfView ?? USUAL_LENS
        })),
    keep: () => {
      if (!judged || !('marks' in judged)) return
      document.editScene({ ...scene, marks: judged.marks }, said('edits.measureTheScene'))
      setDraft(null)
      setGrid(true)
    },
    leave: () => setDraft(null),
    back: () => change(withoutLast(draft)),
    setPoint: () => change(withPoint(draft, cursor))
  }
  const measuring: Measuring | null = draft && {
    people: draft.from === 'people' ? draft.people : [],
    corners: draft.from === 'rectangle' ? draft.corners : [],
    foot: draft.foot,
    cursor,
    off,
    onPoint: (at) => change(withPoint(draft, at)),
    onCursor: setCursor,
    onMovePerson: (index, part, at) =>
      change({
        ...draft,
        people: draft.people.map((p, i) =>
          i === index ? { foot: p.foot, head: p.head, metres: p.metres, [part]: at } : p
        )
      }),
    onMoveCorner: (index, at) =>
      change({ ...draft, corners: draft.corners.map((c, i) => (i === index ? at : c)) })
  }
  const shown: SceneShown | null = pose && {
    pose,
    grid: grid || draft !== null,
    bands,
    figure: grid || draft ? figure : null,
    metres: USUAL_HEIGHT,
    pictureHeight: picture?.height ?? 1080,
    onFigure: setFigure
  }
  const open = useStable(() => setDraft(draftOf(scene.marks)))
  return {
    pose: kept,
    open,
    tool,
    measuring,
    shown,
    grid,
    bands,
    setGrid,
    setBands,
    moveCursor: setCursor
  }
}
