import { messages } from '../../messages.ts'

export const historyDrawer = messages({
  theScene: 'The scene',
  historyOfThisCamera: 'History of this camera',
  atTheStart: 'at the start',
  edits: 'Edits',
  comparison: 'Comparison',
  chooseAnEditToSee:
    'Select an edit to see what changed since. You can restore any state, and undo that.',
  compareItWith: 'Compare with',
  now: 'Now',
  hoursBelongToTheSite:
    'Schedules belong to the site: restoring them affects every camera that uses them.',
  goBackToThisState: 'Restore this state',
  earlierEdits: 'Earlier edits',
  isNew: 'is new',
  wasDeleted: 'was deleted',
  comparing: 'Comparing…',
  noDifference: 'No difference.'
})
