import * as v from 'valibot'
import { id } from '../../schema/parts.ts'
import { common, pictures } from './parts.ts'

export const SnapshotsSchema = v.strictObject({
  ...common,
  kind: v.literal('snapshots'),
  camera: v.nullable(id),
  ...pictures
})
