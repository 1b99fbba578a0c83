import { type Said, said } from '../../../core/messages/said.ts'
import { wordsOf } from '../../../core/messages/words.ts'
import { useShapes as msg } from '../../../core/messages/en/bench/shapes.ts'
import { useState } from 'react'
import type { Detection, Schedule } from '../../../core/formats/plan.ts'
import type { Point } from '../../../core/geometry/shapes.ts'
import { useStableAll } from '../../stable.ts'
import type { BenchDocument, DocumentState } from '../document.ts'
import { newId } from '../../sync/newId.ts'
import { moved } from '../picture/geometry.ts'
import type { Drawing } from '../picture/DrawnSoFar.tsx'
import {
  areaShape,
  limitsOf,
  mirrored,
  pointsOf,
  shapeFault,
  shapeName,
  shapeOf,
  splitAt,
  withPoints,
  type DrawnKind,
  type PictureShape
} from '../picture/shape.ts'
import { freeName } from '../rail/freeName.ts'
import { newDrawn } from '../../kinds/newDetection.ts'
import type { Surroundings } from '../../../core/sites/surroundings.ts'
import type { Template } from '../rail/templates.ts'
import type { Selection } from '../selection.ts'
import type { ViewPrefs } from './viewPrefs.ts'
import { hasShape } from '../../../core/kinds/schemas.ts'

/** The selected shape, whatever it is of, and how it is changed. */
export interface EditedShape {
  shape: PictureShape
  locked: boolean
  edit: (points: Point[], label: Said) => void
}

export interface Shapes extends ShapeActions {
  edited: EditedShape | null
  vertex: number | null
  drawing: Drawing | null
  /** All that can be done, in an object that is always the same. */
  act: ShapeActions
}

export interface ShapeActions {
  setVertex: (index: number | null) => void
  setDrawing: (drawing: Drawing | null) => void
  startDrawing: (kind: DrawnKind, template?: Template) => void
  onDrawn: (points: Point[]) => void
  /** A drag has ended: it becomes a step, or is taken back with the reason said. */
  onSettle: (label: Said) => void
  refuse: (kind: DrawnKind, why: Said | string) => void
  chooseArea: (index: number | null) => void
  remove: () => void
  /** Of a detection, or of what is selected. */
  duplicate: (of?: Detection) => void
  mirror: () => void
  split: () => void
}

const SHIFT = 0.03

/** Drawing and editing shapes: what they become is always a valid shape, or nothing changes and the reason is said. */
export function useShapes({
  document,
  state,
  selection,
  select,
  prefs,
  hasPicture,
  hasPosition,
  surroundings,
  say,
  begin
}: {
  document: BenchDocument
  state: DocumentState
  selection: Selection
  select: (change: Partial<Selection>) => void
  prefs: ViewPrefs
  hasPicture: boolean
  /** The site's place is known, so that hours can follow the sun. */
  hasPosition: boolean
  /** Of the camera. */
  surroundings: Surroundings
  say: (problem: string | null) => void
  /** Drawing begins: the clip stands still, and the picture has the keyboard. */
  begin: () => void
}): Shapes {
  const [vertex, setVertex] = useState<number | null>(null)
  const [drawing, setDrawing] = useState<Drawing | null>(null)
  const { detections: placed, scene } = state
  const chosen = placed.find((p) => p.detection.id === selection.detection)?.detection ?? null
  const areaPoints = selection.area === null ? undefined : scene.ignore[selection.area]

  const editArea = (index: number, points: Point[] | null, label: Said): void =>
    document.editScene(
      {
        ...scene,
        ignore: scene.ignore.flatMap((a, i) => (i === index ? (points ? [points] : []) : [a]))
      },
      label
    )
  const edited: EditedShape | null =
    chosen && hasShape(chosen)
      ? {
          shape: shapeOf(chosen),
          locked: prefs.locked.has(chosen.id),
          edit: (points, label) => document.edit(withPoints(chosen, points), label)
        }
      : areaPoints
        ? {
            shape: areaShape(areaPoints, selection.area!),
            locked: false,
            edit: (points, label) => editArea(selection.area!, points, label)
          }
        : null

  const refuse = (kind: DrawnKind, why: Said | string): void =>
    say(
      wordsOf(
        said(
          'shapes.refused',
          said(`shapes.${kind === 'line' || kind === 'ignore' ? kind : 'zone'}`),
          why
        )
      )
    )
  const chooseArea = (area: number | null): void => {
    setVertex(null)
    select({ area, detection: null, target: null, frame: null })
  }
  const add = (made: readonly Detection[], schedules?: readonly Schedule[]): void => {
    document.add(made, schedules)
    setVertex(null)
    select({ detection: made[0]!.id, area: null, target: null, frame: null })
  }
  /** Points of a copy, a little aside of the first, wherever there is room. */
  const aside = (points: readonly Point[]): Point[] => {
    const to = moved(points, SHIFT, SHIFT)
    return to.some(
      ([x, y], i) => Math.abs(x - points[i]![0]) + Math.abs(y - points[i]![1]) > SHIFT / 2
    )
      ? to
      : moved(points, -SHIFT, -SHIFT)
  }

  const act = useStableAll<ShapeActions>({
    setVertex,
    setDrawing,
    refuse,
    chooseArea,
    startDrawing: (kind, template) => {
      if (!hasPicture) return
      begin()
      setVertex(null)
      say(null)
      setDrawing({ kind, points: [], cursor: [0.5, 0.5], ...(template && { template }) })
    },
    onDrawn: (points) => {
      if (!drawing || points.length < limitsOf(drawing.kind).least) return
      const { kind, template } = drawing
      const fault = shapeFault(kind, points)
      if (fault) return refuse(kind, fault)
      setDrawing(null)
      say(null)
      if (template) {
        const made = template.make(points, {
          placed,
          schedules: state.schedules,
          hasPosition,
          surroundings
        })
        return add(made.detections, made.schedules)
      }
      if (kind !== 'ignore') return add([newDrawn(kind, points, placed)])
      document.editScene(
        { ...scene, ignore: [...scene.ignore, points] },
        said('edits.drawIgnoreArea', scene.ignore.length + 1)
      )
      chooseArea(scene.ignore.length)
    },
    onSettle: (label) => {
      say(null)
      const now = chosen && document.detection(chosen.id)
      const shape =
        now && hasShape(now)
          ? shapeOf(now)
          : selection.area !== null && document.scene().ignore[selection.area]
            ? areaShape(document.scene().ignore[selection.area]!, selection.area)
            : null
      const fault = shape && shapeFault(shape.kind, shape.points)
      if (!fault) return document.commitDrag(label)
      document.cancelDrag()
      refuse(shape.kind, fault)
    },
    remove: () => {
      setVertex(null)
      if (selection.area !== null) {
        editArea(selection.area, null, said('edits.deleteIgnoreArea', selection.area + 1))
        return chooseArea(null)
      }
      if (!chosen || prefs.locked.has(chosen.id)) return
      document.remove(chosen.id)
      select({ detection: null, target: null, frame: null })
    },
    duplicate: (of) => {
      const source = of ?? chosen
      if (!of && selection.area !== null && areaPoints) {
        document.editScene(
          { ...scene, ignore: [...scene.ignore, aside(areaPoints)] },
          said('edits.duplicateIgnoreArea', selection.area + 1)
        )
        return chooseArea(scene.ignore.length)
      }
      if (!source) return
      const copy = { ...source, id: newId(source.kind), name: freeName(source.name, placed) }
      add([hasShape(copy) ? withPoints(copy, aside(pointsOf(copy))) : copy])
    },
    mirror: () => {
      if (chosen?.kind === 'line' && !prefs.locked.has(chosen.id))
        document.edit(mirrored(chosen), said('edits.turnOver', chosen.name))
    },
    split: () => {
      if (!edited || edited.locked) return
      if (vertex === null) return say(msg.chooseTheVertexAtWhich(shapeName(edited.shape.kind)))
      const parts = splitAt(edited.shape, vertex)
      if (!parts) return say(msg.theCantBeSplit(shapeName(edited.shape.kind)))
      setVertex(null)
      say(null)
      if (selection.area !== null)
        return document.editScene(
          {
            ...scene,
            ignore: scene.ignore.flatMap((a, i) => (i === selection.area ? parts : [a]))
          },
          said('edits.cutIgnoreArea', selection.area + 1)
        )
      if (!chosen || !hasShape(chosen)) return
      const second = {
        ...withPoints(chosen, parts[1]),
        id: newId(chosen.kind),
        name: freeName(chosen.name, placed)
      }
      document.editAll(
        [
          { id: chosen.id, detection: withPoints(chosen, parts[0]) },
          { id: second.id, detection: second }
        ],
        said('edits.cutInTwo', chosen.name)
      )
    }
  })
  return { edited, vertex, drawing, act, ...act }
}
