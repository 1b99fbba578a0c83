import { messages } from '../../messages.ts'

export const watch = messages({
  mustBeAnInstant: 'must be an instant',
  mustBeTheNumberOf: 'must be the number of an alarm',
  readAlready: (by: string) => `${by} has read it already.`,
  mustBeYesOrNo: 'must be yes or no',
  mustBeAPlace: 'must be a place',
  mustBeThePlaceThat: 'must be the cursor of the previous page',
  cameraDecided:
    'The camera itself decided. The conditions here are calculated from what it reported, and fall just short.',
  targetNotReported: 'The camera’s metadata does not contain this target.',
  noTarget: 'This kind looks at whole pictures or a contact: there is no target to follow.',
  nothingKept: 'What the camera reported at the time was not kept.',
  itsClipIsNotThere: 'Its clip no longer exists.'
})
