import { count } from '../../format.ts'
import { messages } from '../../messages.ts'

export const compare = messages({
  compareKinds: (name: string) => `Compare kinds: ${name}`,
  wantedATriggerWith: 'Wanted: a trigger with',
  inThePictureByThe: (truth: boolean) =>
    `in the picture, ${truth ? 'by the clip’s ground truth' : 'by the targets that were found in it'}`,
  noDetectionsToCompare: 'No detections to compare. Add Motion, Motion by class or a line.',
  noTrigger: 'no triggers',
  wanted: (wanted: number) => `${wanted} wanted`,
  nuisances: (n: number) => count(n, 'nuisance'),
  atWanted: (name: string, time: string, good: boolean) =>
    `${name} at ${time}, ${good ? 'wanted' : 'nuisance'}`,
  andMoreOnTheTimeline: (more: number) => `and ${more} more on the timeline`
})
