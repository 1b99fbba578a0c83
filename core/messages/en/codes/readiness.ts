import { count, list, percent, settingSeconds } from '../../format.ts'
import type { Surroundings } from '../../../sites/surroundings.ts'
import { messages } from '../../messages.ts'
import { surroundings } from '../site.ts'

/** What is still missing on a site, and the fix of each. */
export const readiness = messages({
  fixIsCommand: 'This fix does not change the plan.',
  analysisOff: (detection: string, device: string, running: string | null, needed: string) =>
    `${detection} can’t run: ${device} ${running ? `is in ${running} mode` : 'runs no analysis'}, ${detection} needs ${needed}.`,
  switchTo: (mode: string) => `Switch to ${mode}`,
  clockOff: (device: string, s: number, ahead: number) =>
    `${device}’s clock is ${s} s ${ahead > 0 ? 'fast' : 'slow'}. Set its clock.`,
  setClock: 'Set clock',
  noStorage: (device: string, cameras: readonly string[]) =>
    `Recordings of ${list(cameras)} are lost: ${device} has no storage. Insert a card, or record through a recorder.`,
  storageFull: (device: string, place: string) =>
    `${device} records nothing more: its storage (${place}) is full and does not overwrite. Set it to overwrite, or free space.`,
  storageStops: (device: string, place: string) =>
    `${device} stops recording once its storage (${place}) is full. Set it to overwrite the oldest recordings.`,
  defaultPassword: (device: string) =>
    `${device} has no account yet; anyone can claim it. Create one under Devices.`,
  restore: 'Restore what was sent',
  drift: (detection: string, device: string, differences: readonly string[]) =>
    `${detection} was changed on ${device} after it was sent: ${differences.join('; ')}. Restore it, or import it under Devices.`,
  settingNow: (setting: string, plan: string, device: string) =>
    `${setting} ${plan}, now ${device}`,
  setDwell: (s: number) => `Set dwell to ${settingSeconds(s)}`,
  dwellBelowPassers: (detection: string, usual: string, dwell: number) =>
    `${detection} triggers on passers-by: they take up to ${usual} s to cross it, and its dwell is ${settingSeconds(dwell)}.`,
  framesRejectAll: (detection: string) =>
    `${detection} would not have triggered once: its size limits exclude every target in the clips.`,
  fitSizes: 'Fit the size limits to the clips',
  swapSizes: 'Swap them',
  framesSwapped: (detection: string) =>
    `${detection} never triggers: its smallest target is larger than its largest.`,
  sendThrough: (device: string) => `Send through ${device}`,
  kindUnsupported: (detection: string, devices: readonly string[] | string) =>
    `${detection} will not trigger: ${list(devices)} can’t run this kind of detection.`,
  lineAtEdge: (detection: string, edge: string, w: string, h: string) =>
    `${detection} is too close to the ${edge} edge: targets there are ${w} × ${h}% of the picture and only half visible. Move it inwards.`,
  upper: 'upper',
  lower: 'lower',
  leftEdge: 'left',
  rightEdge: 'right',
  modeConflict: (camera: string, modes: readonly string[] | string, device: string) =>
    `${camera} needs ${list(modes)}, and ${device} runs one of them at a time. Switch some detections off, or use another device for them.`,
  motionOff: (detection: string, device: string) =>
    `${detection} can’t run while motion detection is off on ${device}.`,
  addMotion: 'Add motion',
  switchMotionOn: 'Switch motion on',
  noClassesSearch: (detection: string) =>
    `${detection} counts every class: animals and unknown targets trigger it too, and its events can’t be searched by class.`,
  notHeld: (detection: string, device: string, setting: string, wanted: string, onSite: string) =>
    `${device} ignores ${detection}’s ${setting} (${wanted}): on site it is ${onSite}.`,
  leftOut: 'left out',
  notSent: (n: number, device: string, names: string, camera: string) =>
    `${count(n, 'unsent change')} on ${device} (${names}); ${camera} runs the old settings.`,
  outputsNotSent: (device: string, outputs: readonly string[] | string) =>
    `${device} does not switch ${list(outputs)} on its own yet: they work only while the server runs.`,
  surroundingsNotSent: (device: string, camera: string, wanted: Surroundings) =>
    `${device} is not set to ${surroundings[wanted].toLowerCase()} yet, where ${camera} looks.`,
  send: 'Send',
  obstructed: (detection: string, n: number) =>
    `${detection}: ${n} targets are lost at the same spot in it; something may be in front of them. Move it to where they are fully visible.`,
  invalidResponse: (device: string) =>
    `${device} gives invalid responses: what it holds is not known.`,
  wrongPassword: (device: string) =>
    `${device} does not accept the user name and password. Enter the right ones under Devices.`,
  otherCertificate: (device: string) =>
    `${device} shows another certificate than before, and is not trusted: nothing is sent to it. Compare it under Devices.`,
  offline: (device: string) =>
    `${device} can’t be reached: nothing can be sent to it, and no events arrive.`,
  useInPlan: (value: string) => `Use ${value} in the plan`,
  outOfRange: (
    detection: string,
    device: string,
    setting: string,
    wanted: string,
    nearest: string
  ) => `${detection}: ${device} can’t use a ${setting} of ${wanted}; it will use ${nearest}.`,
  recorderFull: (camera: string, device: string, detections: string, channels: number) =>
    `${camera} needs the analysis of ${device} for ${detections}, but all ${channels} channels analyse other cameras.`,
  seenTooShort: (detection: string, seen: string, needed: number) =>
    `${detection}: targets are visible for ${seen} s before they cross it; classifying them takes ${needed} s. Move the line further along their path.`,
  setTo50: 'Set to 50',
  sensitivityExtreme: (detection: string, sensitivity: number, effect: string) =>
    `${detection} has a sensitivity of ${sensitivity}: ${effect}.`,
  missesMuch: 'it misses most changes',
  noiseTriggers: 'noise and changing light trigger it',
  needsWholeBody: 'almost the whole body must overlap',
  handTriggers: 'a hand over it is enough',
  switchesBack: (device: string, kind: string) =>
    `${device} keeps switching ${kind} back on, which causes nuisance alarms. Park it: it keeps its place on the device and detects nothing.`,
  tamperParked: 'Tamper, parked',
  motion: 'Motion',
  motionParked: 'Motion, parked',
  parkIt: 'Park it',
  park: (detection: string) => `Park ${detection}`,
  tamperDarkView: (detection: string, dark: boolean, clip: string) =>
    `${detection} may miss a covered lens: the view is ${dark ? 'dark' : 'almost uniform'} already (${clip}).`,
  tamperLowMount: (camera: string, height: string, detection: string) =>
    `${camera} is mounted at ${height} m, within reach: passers-by can trigger ${detection}.`,
  targetTooLarge: (detection: string, share: string, most: number) =>
    `${detection}: targets fill ${share}% of the picture there; above ${most}% they can’t be classified reliably. Move it further from the camera.`,
  largestTooLarge: (detection: string, share: string, most: number) =>
    `${detection}: its largest target is ${share}% of the picture; above ${most}% targets can’t be classified reliably.`,
  targetTooSmall: (detection: string, density: string, needed: number) =>
    `${detection}: ${density} px/m at its far end; detection needs ${needed} px/m. Draw it nearer, or use a longer lens.`,
  tooManyOfKind: (camera: string, n: number, kind: string, device: string, most: number) =>
    `${camera} has ${n} detections of the kind ${kind}; ${device} takes ${most} and will refuse ${n - most}.`,
  tooMany: (camera: string, n: number, device: string, most: number) =>
    `${camera} has ${count(n, 'detection')}; ${device} takes ${most} and will refuse ${n - most}.`,
  chooseContact: 'Choose its contact',
  armInputMissing: (detection: string, input: string, effect: string) =>
    `${detection} will not trigger on site: ${input} ${effect}, because no device has it.`,
  neverSet: 'is never set',
  neverHeard: 'is never reported',
  barelyArmed: (detection: string, minutes: number, schedule: string) =>
    `${detection} is armed ${minutes} min a week: ${schedule} is almost empty. To keep a device quiet, park it instead.`,
  itsSchedule: 'its schedule',
  markIntended: 'Mark as intended',
  follow: (schedule: string) => `Follow ${schedule}`,
  gap: (
    endpoint: string,
    share: number,
    detection: string,
    stretches: readonly string[],
    more: number
  ) =>
    `${endpoint} is off for ${percent(share)} of ${detection}’s armed time: ${stretches.join('; ')}${more > 0 ? `; and ${more} more` : ''}.`,
  neverActs: (endpoint: string, detection: string, own: string, armed: string) =>
    `${endpoint} never runs for ${detection}: ${own} and ${armed} don’t overlap.`,
  allTheTime: 'all the time',
  armAlways: 'Always arm it',
  neverArmed: (detection: string, schedule: string) =>
    `${detection} never triggers: ${schedule} is empty all year.`,
  addStation: 'Add it',
  noStation: (station: string, detection: string) =>
    `${detection} is not sent to the monitoring station (${station}).`,
  addAction: 'Add action',
  addDefaults: 'Add default actions',
  nothingLinked: (detection: string) => `${detection} has no actions.`,
  setUp: 'Set it up',
  outputNotSet: (endpoint: string, missing: string) => `${endpoint} can’t run: ${missing}.`,
  preRecordOff: (recording: string) =>
    `${recording} starts at the trigger: what led to it is not recorded.`,
  recordBefore: (s: number) => `Record ${settingSeconds(s)} before`,
  severityTooLow: (station: string, detection: string, severity: string, accepts: string) =>
    `${station} will refuse alarms of ${detection}: their severity is ${severity}, the lowest accepted is ${accepts}.`,
  setSeverity: (severity: string) => `Set severity to ${severity}`,
  untested: (endpoint: string) => `${endpoint} has not been tested with its current settings.`,
  testFailed: (endpoint: string) => `The last test of ${endpoint} failed.`,
  test: (endpoint: string) => `Test ${endpoint}`,
  seeWhy: 'See why',
  checkFailed: (detection: string, n: number, names: readonly string[], more: number) =>
    `${detection} failed ${count(n, 'check')}: ${names.join('; ')}${more > 0 ? `; and ${more} more` : ''}.`,
  neverRun: (detection: string) => `${detection}’s checks have not been run.`,
  outdated: (detection: string, n: number) =>
    `Settings changed since ${detection}’s last run: ${count(n, 'check is', 'checks are')} out of date. Run ${n === 1 ? 'it' : 'them'} again.`,
  runChecks: 'Run its checks',
  seeProposed: 'See proposed checks',
  noChecks: (detection: string) => `${detection} has no checks.`,
  addCheck: 'Add one',
  onlyPositive: (detection: string) =>
    `${detection} has no check that must not trigger: add one, such as a passer-by.`,
  sendThroughToo: (device: string) => `Send through ${device} too`,
  wrongRoute: (detection: string, setting: string, device: string, better: string) =>
    `${detection}’s ${setting} can’t be set through ${device}. Send the plan through ${better} too.`
})
