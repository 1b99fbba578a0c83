/** What the chips of the sentences open, in one piece. `chipEditors.ts` loads it. */
export { ActionsEditor } from '../bench/inspector/ActionsEditor.tsx'
export { HoursEditor } from '../bench/schedule/HoursEditor.tsx'
export { ContactEditor } from './contact/editors.tsx'
export { DelayEditor } from './DelayEditor.tsx'
export {
  ClassesEditor,
  ConfirmEditor,
  HoldOffEditor,
  NameEditor,
  SensitivityEditor
} from './editors.tsx'
export { FaceFrameEditor, ListEditor, MaskEditor } from './face/editors.tsx'
export { DirectionEditor } from './line/DirectionEditor.tsx'
export { GraceEditor } from './loitering/GraceEditor.tsx'
export { MotionDelaysEditor, MotionSensitivityEditor, ThresholdEditor } from './motionEditors.tsx'
export { SizeEditor } from './SizeEditor.tsx'
export { CausesEditor, SeverityEditor, TamperSensitivityEditor } from './tamper/editors.tsx'
export { AtLeastEditor, DwellEditor, ZoneKindEditor } from './zoneEditors.tsx'
