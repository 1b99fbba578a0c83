import { messages } from '../messages.ts'

export const ladderView = messages({
  size: 'Size',
  together: 'Number together',
  schedule: 'Schedule',
  list: 'Face list',
  cells: 'Cells',
  picture: 'Picture',
  conditions: 'Conditions',
  whyWhyNot: (fired: boolean, who: string) => `${fired ? 'Why' : 'Why not'} ${who}, at`,
  s: (time: string) => `${time} s`,
  met: 'met',
  notMet: 'not met'
})

export const liveTile = messages({
  notConnected: 'Not connected. Retrying…',
  noNewPictureForS: (value: number) => `No new picture for ${value} s`,
  noPictureYet: 'No picture yet',
  activeAlarm: 'active alarm',
  notOnDevice: (n: number) => `${n} not on device`
})

export const weatherNames = messages({
  calm: 'Calm and dry',
  wind: 'Wind',
  rain: 'Rain and wind',
  snow: 'Snow',
  fog: 'Fog'
})

export const walkWords = messages({
  lensCovered: 'Lens covered',
  lensSprayed: 'Lens sprayed',
  outOfFocus: 'Out of focus',
  knockedAside: 'Knocked aside',
  lightsOut: 'Lights out',
  dazzled: 'Dazzled',
  cableCut: 'Cable cut',
  pictureFrozen: 'Picture frozen',
  adult: 'Adult',
  child: 'Child',
  crouchingPerson: 'Crouching person',
  group: 'Group',
  dog: 'Dog',
  gull: 'Gull',
  car: 'Car',
  van: 'Van',
  cyclist: 'Cyclist',
  day: 'Day',
  dusk: 'Dusk',
  nightLamps: 'Night, lamps',
  nightByInfraRed: 'Night, infrared'
})

export const scenePreview = messages({
  atS: (name: string, time: string) => `${name} at ${time} s`
})
