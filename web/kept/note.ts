import { editorName } from './editorName.ts'

/** What the history will say of a save; a header carries names of any script percent-encoded. */
export const noteHeaders = (label: string): Record<string, string> => ({ 'x-edit-by': encodeURIComponent(editorName()), 'x-edit-label': encodeURIComponent(label) })
