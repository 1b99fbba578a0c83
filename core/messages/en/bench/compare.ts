import { messages } from '../../messages.ts'

export const compare = messages({
  whatEachWouldSend: (name: string) => `What each would send: ${name}`,
  wantedATriggerWith: 'Wanted: a trigger with',
  inThePictureByThe: (truth: boolean) =>
    `in the picture, ${truth ? 'by the clip’s ground truth' : 'by the targets that were found in it'}`,
  thisCameraHasNoDetection:
    'This camera has no detection in use that could be compared. Add Motion, Motion by class or a line.',
  noTrigger: 'no trigger',
  wanted: (wanted: number) => `✓ ${wanted} wanted`,
  forNothing: (more: number) => `✕ ${more} for nothing`,
  atWanted: (name: string, time: string, good: boolean) =>
    `${name} at ${time}, ${good ? 'wanted' : 'for nothing'}`,
  andMoreOnTheTimeline: (more: number) => `and ${more} more on the timeline`
})
