import { messages } from '../messages.ts'

export const kinds = messages({
  site: 'The site',
  theScene: 'The scene',
  people: 'People',
  actions: 'Actions'
})

export const document = messages({
  yourChange: 'Your change',
  cannotBeEditedHere: (key: string) => `${key} cannot be edited here`
})

export const conflictNote = messages({
  wasInAnotherWindow: (name: string, time: string, deleted: boolean) =>
    `${name} was ${deleted ? 'deleted' : 'changed'} in another window at ${time}. Your change is not saved yet.`,
  saveMine: 'Save mine',
  useTheirs: 'Use theirs'
})

export const syncBar = messages({
  allChangesSaved: 'All changes saved',
  saving: 'Saving…',
  unsavedChanges: 'Unsaved changes',
  notSaved: (error: string) => `Not saved: ${error}`,
  undo: (undo: string) => `Undo: ${undo}`,
  nothingToUndo: 'Nothing to undo',
  redo: (redo: string) => `Redo: ${redo}`,
  nothingToRedo: 'Nothing to redo'
})
