import { messages } from '../../messages.ts'

export const changePanel = messages({
  whatWouldHaveToChange: 'What would have to change?',
  whatWouldHaveToChange2: 'What would have to change',
  toKeepItOutOne: 'To keep it out, one of these',
  toLetItThroughOne: 'To let it through, one of these',
  tryingEachGate: 'Trying each gate …',
  noChangeToASingle:
    'No change to a single gate would do it; more than one stands in the way, or the shape does not reach it.',
  doIt: 'Do it',
  tryingItOnTheClip: (clips: number) =>
    `Trying it on ${clips === 1 ? 'the clip' : `all ${clips} clips`} …`,
  onThisClip: 'on this clip',
  onAllClips: (clips: number) => `on all ${clips} clips`,
  nothingElseChanges: (on: string) => `Nothing else changes ${on}.`,
  alsoTriggers: (on: string, gained: string) => `Also triggers ${on}: ${gained}.`,
  loses: 'Loses',
  andMore: (list: string, more: number) => `${list} and ${more} more`,
  of: (name: string) => ` of ${name}`,
  aFrameTarget: (target: number | undefined, time: string, where: string) =>
    `${target === undefined ? 'a frame' : `target ${target}`} at ${time} s${where}`
})

export const deviceLimits = messages({
  hasNoDetectionOf: (device: string) => `${device} has no detection of this kind`,
  hasNoSuchSetting: (device: string) => `${device} has no such setting`,
  stepOfTo: (device: string, step: number, min: number, max: number, same: boolean, back: number) =>
    `${device}: step ${step} of ${min} to ${max}${same ? '' : `, which is ${back}`}`,
  to: (device: string, min: number, max: number, unit: string, holds: boolean, value: number) =>
    `${device}: ${min} to ${max}${unit}${holds ? '' : `; it would hold ${value}${unit}`}`
})

export const nearMisses = messages({
  nearMisses: 'Near misses',
  nearMissMisses: (near: number) =>
    `${near} near ${near === 1 ? 'miss' : 'misses'}, the nearest first`,
  target: 'target',
  s: (time: string) => `${time} s`,
  short: (value: number) => `${value} % short`
})

export const actionsEditor = messages({
  nothingToSetOffHas: 'Nothing to set off has been set up on this site yet.',
  link: (name: string) => `Link ${name}`,
  unlink: (name: string) => `Unlink ${name}`,
  severityAlarmAndSettingsIn: 'Severity, alarm and settings in Actions',
  setUpOutputsAndMessages: 'Set up outputs and messages in Actions',
  andMore: (names: string, more: number) => `${names} and ${more} more`
})

export const inspector = messages({
  ignoreArea: (value: number) => `⊘ Ignore area ${value}`,
  nothingSelected: 'Nothing selected',
  ignoreArea2: (value: number) => `ignore area ${value}`,
  inspector: 'Inspector',
  del: 'Del',
  delete2: (deleteName: string) => `Delete ${deleteName}`,
  chooseADetectionOnThe:
    'Choose a detection on the left or on the picture to set it. Choose a trigger or a target to see which gates it passed.',
  aTargetWhoseFeetAre:
    'A target whose feet are in this area does not count, for any detection of this camera.',
  switchedOffItTriggers: '☾ Switched off: it triggers nothing until it is in use.',
  chooseATriggerOnThe:
    'Choose a trigger on the timeline, or a target, to see why it fired or why not.',
  parkUse: (parked: boolean, name: string) => `${parked ? 'Park' : 'Use'} ${name}`,
  forDevicesThatSwitchThis:
    'For devices that switch this kind on again by themselves: it keeps its place there with one minute a day and no area, and watches nothing.',
  parkIt: 'Park it',
  parkedOnItsDeviceIt:
    'Parked: on its device it is armed for one minute a day, with no area; it watches nothing.',
  useItAgain: 'Use it again'
})

export const shapeTools = messages({
  shape: 'Shape',
  turnTheDirectionOver: 'Turn the direction over',
  cutInTwoAtThe: 'Cut in two at the vertex',
  showItOnThePicture: 'Show it on the picture',
  hideItOnThePicture: 'Hide it on the picture',
  unlockTheShape: 'Unlock the shape',
  lockTheShape: 'Lock the shape',
  copyTo: 'Copy to …'
})
