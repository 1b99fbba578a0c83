import { messages } from '../../messages.ts'

/** What cameras have reported in the last days. */
export const lookBack = messages({
  stopped: 'Stopped.',
  noSuchCamera: (camera: string) => `"${camera}" is no camera of this site`,
  mustBeLater: 'must be later than its beginning',
  isLongerThan: (days: number) => `is longer than ${days} days`,
  isLongerThanAnHour: 'is longer than an hour',
  isLongerThanADay: 'is longer than a day',
  noSuchSetting: (setting: string) => `the detection has no ${setting}`
})
