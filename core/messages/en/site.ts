import { messages } from '../messages.ts'

export const todaysTriggers = messages({
  todaysTriggers: 'Today’s triggers',
  noTriggerToday: 'No triggers today',
  triggerTriggersToday: (total: number) => `${total} ${total === 1 ? 'trigger' : 'triggers'} today`,
  allOfThem: 'Show all'
})

export const sitePlace = messages({
  noPictureYet: 'No picture yet',
  cameras: (cameras: number, timeZone: string) => `${cameras} cameras · ${timeZone}`,
  nothingDrawnYet: 'No detections',
  detectionDetectionsDrawn: (detections: number) =>
    `${detections} ${detections === 1 ? 'detection' : 'detections'} drawn`,
  whatIsMissing: 'Issues',
  nothingIsMissingOfWhat: 'No issues found',
  foundOfThem: (findings: number, blocking: number) =>
    `${findings} ${findings === 1 ? 'issue' : 'issues'}${blocking ? `, ${blocking} blocking` : ''}`,
  lookingAtWhatIsMissing: 'Checking…',
  showTheWorstOnly: 'Show fewer',
  showMore: (more: number) => `Show ${more} more`
})
