import { messages } from '../messages.ts'

export const todaysTriggers = messages({
  todaysTriggers: 'Today’s triggers',
  noTriggerToday: 'No trigger today',
  triggerTriggersToday: (total: number) => `${total} ${total === 1 ? 'trigger' : 'triggers'} today`,
  allOfThem: 'All of them'
})

export const sitePlace = messages({
  noPictureYet: 'No picture yet',
  readingTheSite: 'Reading the site …',
  cameras: (cameras: number, timeZone: string) => `${cameras} cameras · ${timeZone}`,
  nothingDrawnYet: 'Nothing drawn yet',
  detectionDetectionsDrawn: (detections: number) =>
    `${detections} ${detections === 1 ? 'detection' : 'detections'} drawn`,
  whatIsMissing: 'What is missing',
  nothingIsMissingOfWhat: 'Nothing is missing of what has been looked at',
  foundOfThem: (findings: number, blocking: number) =>
    `${findings} found${blocking ? `, ${blocking} of them ${blocking === 1 ? 'blocks' : 'block'}` : ''}`,
  lookingAtWhatIsMissing: 'Looking at what is missing …',
  showTheWorstOnly: 'Show the worst only',
  showMore: (more: number) => `Show ${more} more`
})
