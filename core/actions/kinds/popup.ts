import { oneOf } from '../../schema/parts.ts'
import * as v from 'valibot'
import { common } from './parts.ts'

export const POPUP_SOUNDS = ['none', 'chime', 'alarm'] as const
export const PopupSchema = v.strictObject({
  ...common,
  kind: v.literal('popup'),
  sound: oneOf(POPUP_SOUNDS)
})
