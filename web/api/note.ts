import type { Said } from '../../core/messages/said.ts'
/** What the history will call a save: a code with its values, percent-encoded, as names may be of any script. */
export const noteHeaders = (label: Said): Record<string, string> => ({
  'x-edit-label': encodeURIComponent(JSON.stringify(label))
})
