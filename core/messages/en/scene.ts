import { messages } from '../messages.ts'

export const ladderView = messages({
  size: 'Size',
  confirm: 'Confirm',
  together: 'Together',
  armed: 'Armed',
  list: 'List',
  cells: 'Cells',
  picture: 'Picture',
  gateLadder: 'Gate ladder',
  whyWhyNot: (fired: boolean, who: string) => `${fired ? 'Why' : 'Why not'} ${who}, at`,
  s: (time: string) => `${time} s`,
  letThrough: 'let through',
  stopped: 'stopped'
})

export const liveTile = messages({
  noNewPictureForS: (value: number) => `No new picture for ${value} s`,
  noPictureHasComeYet: 'No picture has come yet',
  anAlarmWaits: 'an alarm waits'
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
  nightByLamplight: 'Night, by lamplight',
  nightByInfraRed: 'Night, by infra-red'
})

export const scenePreview = messages({
  atS: (name: string, time: string) => `${name} at ${time} s`
})
