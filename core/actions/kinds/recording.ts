import * as v from 'valibot'
import { id } from '../../schema/parts.ts'
import { whole, common } from './parts.ts'

export const RecordingSchema = v.strictObject({
  ...common,
  kind: v.literal('recording'),
  /** Null: the camera of the detection itself. */
  camera: v.nullable(id),
  beforeSeconds: whole(0, 60, ' s'),
  afterSeconds: whole(1, 600, ' s')
})
