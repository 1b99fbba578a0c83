import { coded } from '../messages/said.ts'
import * as v from 'valibot'
import { LineDetectionSchema } from './line/schema.ts'
import { IntrusionDetectionSchema } from './intrusion/schema.ts'
import { EntryDetectionSchema } from './entry/schema.ts'
import { ExitDetectionSchema } from './exit/schema.ts'
import { LoiteringDetectionSchema } from './loitering/schema.ts'
import { MotionDetectionSchema } from './motion/schema.ts'
import { ClassMotionDetectionSchema } from './classMotion/schema.ts'
import { TamperDetectionSchema } from './tamper/schema.ts'
import { SignalLossDetectionSchema } from './signalLoss/schema.ts'
import { ContactDetectionSchema } from './contact/schema.ts'
import { FaceDetectionSchema } from './face/schema.ts'
import type { Point } from '../geometry/shapes.ts'
import type { Severity } from './parts.ts'

export * from './line/schema.ts'
export * from './intrusion/schema.ts'
export * from './entry/schema.ts'
export * from './exit/schema.ts'
export * from './loitering/schema.ts'
export * from './motion/schema.ts'
export * from './classMotion/schema.ts'
export * from './tamper/schema.ts'
export * from './signalLoss/schema.ts'
export * from './contact/schema.ts'
export * from './face/schema.ts'

/** All kinds of detections (docs/detections.md): one schema per kind, the schema is the type. */

const schemas = [
  LineDetectionSchema,
  IntrusionDetectionSchema,
  EntryDetectionSchema,
  ExitDetectionSchema,
  LoiteringDetectionSchema,
  MotionDetectionSchema,
  ClassMotionDetectionSchema,
  TamperDetectionSchema,
  SignalLossDetectionSchema,
  ContactDetectionSchema,
  FaceDetectionSchema
] as const
/** All kinds, each described by its schema. */
export const DETECTION_KINDS = schemas.map(({ entries }) => entries.kind.literal)
export const DetectionSchema = v.variant(
  'kind',
  schemas,
  coded('input.mustBeOneOf', DETECTION_KINDS.join(', '))
)

export type Detection = v.InferOutput<typeof DetectionSchema>
export type DetectionKind = Detection['kind']
/** Detections with gates that look at a target. */
export type TargetGated = Extract<Detection, { classes: unknown }>
/** Detections that look at whole frames, or at an input. */
export type FrameDetection =
  Exclude<Detection, TargetGated> | Extract<Detection, { cells: unknown }>
/** Detections that look at targets one by one. */
export type TargetDetection = Exclude<Detection, FrameDetection>
export type ZoneDetection = Extract<Detection, { zone: unknown }>
/** Zones in which so many must stay for so long. */
export type StayDetection = Extract<Detection, { dwellSeconds: unknown; atLeast: unknown }>
/** Detections with a line or a zone. */
export type ShapeDetection = Extract<Detection, { line: unknown } | { zone: unknown }>

/** Whether a detection asks for a size in metres, which only a calibrated scene can tell. */
export const isInMetres = (d: Detection): boolean =>
  'size' in d && (d.size?.minMetres !== undefined || d.size?.maxMetres !== undefined)

/** Whether a detection looks at whole frames, or at an input, rather than at targets one by one. */
export const isFrameKind = (d: Detection): d is FrameDetection => !('classes' in d) || 'cells' in d

export const hasShape = (d: Detection): d is ShapeDetection => 'line' in d || 'zone' in d

/** The vertices of a detection's line or zone; null where it has neither. */
export const shapeOf = (d: Detection): readonly Point[] | null =>
  'line' in d ? d.line : 'zone' in d ? d.zone : null

/** How severe a detection's trigger is: its own severity where the kind has one. */
export const severityOf = (d: Detection, linked: Severity): Severity =>
  'severity' in d ? d.severity : linked

/** Whether detections of a kind have a field. */
export const hasField = (kind: DetectionKind, field: string): boolean =>
  schemas.some(({ entries }) => entries.kind.literal === kind && field in entries)
