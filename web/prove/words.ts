import type { About, Check } from '../../core/formats/check.ts'

export const aboutNames: Record<About, string> = {
  passes: 'Who counts',
  direction: 'Direction',
  share: 'Body share',
  class: 'Class',
  size: 'Size',
  confirm: 'Confirm time',
  dwell: 'Dwell',
  together: 'Number together',
  ignore: 'Ignore areas',
  holdOff: 'Hold-off',
  armed: 'Arming hours',
  armInput: 'Arm input',
  face: 'Face',
  mask: 'Mask',
  list: 'List of faces',
  cells: 'Cells in motion',
  cause: 'Cause',
  delay: 'Delay',
  contact: 'Contact',
  outputs: 'What follows',
  nuisance: 'Nuisance'
}

export const expectedWords = ({ expect }: Check): string =>
  expect.what === 'silence'
    ? 'Silence'
    : expect.times !== undefined && expect.times > 1
      ? `${expect.times} triggers`
      : 'A trigger'

export const byWords: Record<Check['by']['how'], string> = {
  walk: 'Walk on the scene',
  clip: 'Stretch of a clip',
  person: 'Person on site'
}

/** `Thu 26 Nov, 18:30` at the site. */
export const whenWords = (at: number, timeZone: string): string =>
  new Intl.DateTimeFormat('en-GB', {
    timeZone,
    weekday: 'short',
    day: 'numeric',
    month: 'short',
    hour: '2-digit',
    minute: '2-digit'
  }).format(at)
