import { messages } from '../../messages.ts'

export const changePanel = messages({
  suggestAChange: 'Suggest a change',
  suggestedChanges: 'Suggested changes',
  toStopItOne: 'To stop it, one of these',
  toTriggerOneOf: 'To trigger, one of these',
  tryingEachGate: 'Trying each condition…',
  noSingleChangeIs: 'No single change is enough.',
  doIt: 'Apply',
  testingOnClips: (clips: number) =>
    `Testing on ${clips === 1 ? 'the clip' : `all ${clips} clips`}…`,
  onThisClip: 'on this clip',
  onAllClips: (clips: number) => `on all ${clips} clips`,
  nothingElseChanges: (on: string) => `Nothing else changes ${on}.`,
  alsoTriggers: (on: string, gained: string) => `Also triggers ${on}: ${gained}.`,
  loses: 'Loses',
  andMore: (list: string, more: number) => `${list} and ${more} more`,
  of: (name: string) => ` of ${name}`,
  atS: (target: number | undefined, time: string, where: string) =>
    `${target === undefined ? 'a frame' : `target ${target}`} at ${time} s${where}`
})

export const deviceLimits = messages({
  doesNotSupportThis: (device: string) => `${device} does not support this kind`,
  doesNotSupportThisSetting: (device: string) => `${device} does not support this setting`,
  stepOfTo: (device: string, step: number, min: number, max: number, same: boolean, back: number) =>
    `${device}: step ${step} of ${min} to ${max}${same ? '' : `, which is ${back}`}`,
  to: (device: string, min: number, max: number, unit: string, holds: boolean, value: number) =>
    `${device}: ${min} to ${max}${unit}${holds ? '' : `; it will use ${value}${unit}`}`
})

export const nearMisses = messages({
  nearMisses: 'Near misses',
  nearClosestFirst: (near: number) =>
    `${near} near ${near === 1 ? 'miss' : 'misses'}, closest first`,
  target: 'target',
  s: (time: string) => `${time} s`,
  short: (value: number) => `${value}% short`
})

export const actionsEditor = messages({
  noActionsOnThis: 'No actions on this site yet.',
  editInActions: 'Edit in Actions',
  setUpActions: 'Set up actions',
  andMore: (names: string, more: number) => `${names} and ${more} more`
})

export const inspector = messages({
  forDevicesThatSwitchThis:
    'Keeps its place on the device, detects nothing. For devices that switch this kind back on by themselves.',
  ignoreArea: (value: number) => `Ignore area ${value}`,
  nothingSelected: 'Nothing selected',
  ignoreArea2: (value: number) => `ignore area ${value}`,
  inspector: 'Inspector',
  del: 'Del',
  delete2: (deleteName: string) => `Delete ${deleteName}`,
  selectADetectionTo: 'Select a detection to edit it. Select a trigger or a target to see why.',
  targetsStandingInThis:
    'Targets standing in this area do not count for any detection of this camera.',
  switchedOffItTriggers: 'Switched off: it does not trigger.',
  selectATriggerOr: 'Select a trigger or a target to see why.',
  parkIt: 'Park',
  parkedOnItsDeviceIt: 'Parked: keeps its place on the device, detects nothing.',
  unpark: 'Unpark'
})

export const noteEditor = messages({
  note: 'Note',
  addNote: 'Add note',
  editNote: 'Edit note',
  whySet: 'Why is it set like this?'
})

export const noteText = messages({
  byAt: (by: string, at: string) => `${by}, ${at}`
})

export const shapeTools = messages({
  shape: 'Shape',
  reverseDirection: 'Reverse direction',
  splitAtTheVertex: 'Split at the vertex',
  showItOnThePicture: 'Show on picture',
  hideItOnThePicture: 'Hide on picture',
  unlockTheShape: 'Unlock shape',
  lockTheShape: 'Lock shape',
  copyTo: 'Copy to…'
})
