import { messages } from '../messages.ts'

export const kinds = messages({
  theScene: 'The scene',
  thePeopleOfTheSite: 'The people of the site',
  whatItSetsOff: 'What it sets off'
})

export const document = messages({
  undo: (label: string) => `Undo: ${label}`,
  mineOf: (name: string) => `Mine of ${name}`,
  theirsOf: (name: string) => `Theirs of ${name}`,
  edit: 'Edit',
  whatYouEdited: 'What you edited',
  isOfNoKind: (key: string) => `${key} is of no kind that is edited here`
})

export const conflictNote = messages({
  wasDeletedChangedIn: (deleted: boolean) =>
    `was ${deleted ? 'deleted' : 'changed'} in another window at`,
  yourChangeIsStill: '. Your change is still here and has not been kept.',
  keepMine: 'Keep mine',
  takeTheirs: 'Take theirs'
})

export const syncBar = messages({
  allChangesSaved: 'All changes saved',
  unsavedChanges: 'Unsaved changes',
  notSaved: (error: string) => `Not saved: ${error}`,
  undo: (undo: string) => `Undo: ${undo}`,
  nothingToUndo: 'Nothing to undo',
  redo: (redo: string) => `Redo: ${redo}`,
  nothingToRedo: 'Nothing to redo',
  redo2: 'Redo'
})

export const siteDocument = messages({
  delete: (name: string) => `Delete ${name}`
})
