import { count } from '../format.ts'
import { messages } from '../messages.ts'

export const todaysTriggers = messages({
  todaysTriggers: 'Today’s triggers',
  noTriggerToday: 'No triggers today',
  today: (total: number) => `${count(total, 'trigger')} today`,
  showAll: 'Show all'
})

export const sitePlace = messages({
  noPictureYet: 'No picture yet',
  cameras: (cameras: number, timeZone: string) => `${count(cameras, 'camera')} · ${timeZone}`,
  noDetections: 'No detections',
  drawn: (detections: number) => `${count(detections, 'detection')} drawn`,
  issues: 'Issues',
  noIssuesFound: 'No issues found',
  blocking: (findings: number, blocking: number) =>
    `${count(findings, 'issue')}${blocking ? `, ${blocking} blocking` : ''}`,
  checking: 'Checking…',
  showFewer: 'Show fewer',
  showMore: (more: number) => `Show ${more} more`
})
