/** What the history will call a save; a header carries names of any script percent-encoded. */
export const noteHeaders = (label: string): Record<string, string> => ({
  'x-edit-label': encodeURIComponent(label)
})
