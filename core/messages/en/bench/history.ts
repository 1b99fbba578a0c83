import { messages } from '../../messages.ts'

export const historyDrawer = messages({
  historyOfThisCamera: 'History of this camera',
  atFirst: 'at first',
  goBackTo: (label: string | undefined) =>
    `Go back to ${label ? `“${label}”` : 'an earlier state'}`,
  edits: 'Edits',
  comparison: 'Comparison',
  chooseAnEditToSee:
    'Choose an edit to see what has changed since then. Every state can be gone back to, and that can be undone.',
  compareItWith: 'Compare it with',
  howItIsNow: 'How it is now',
  hoursBelongToTheSite: 'Hours belong to the site: they go back for every camera that uses them.',
  goBackToThisState: 'Go back to this state',
  earlierEdits: 'Earlier edits',
  isNew: 'is new',
  wasDeleted: 'was deleted',
  comparing: 'Comparing …',
  noDifference: 'No difference.'
})
