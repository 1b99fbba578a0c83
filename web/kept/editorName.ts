const KEY = 'wardoptic.editor'

/** The name under which this browser's edits stand in the history. */
export const editorName = (): string => localStorage.getItem(KEY) ?? 'Somebody'

export const setEditorName = (name: string): void => localStorage.setItem(KEY, name.trim().slice(0, 80) || 'Somebody')
