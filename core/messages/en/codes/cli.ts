import { count, wholePercent } from '../../format.ts'
import { messages } from '../../messages.ts'

export const cli = messages({
  error: (words: string) => `error: ${words}`,
  cannotRead: (file: string, code: string | undefined) => `cannot read ${file} (${code})`,
  areOfFramesSAndFps: (fps: number, fps2: number) =>
    `are at ${fps} frames/s, but --fps is ${fps2}; both must be of the same clip`,
  areOfCellsAnd: (columns: number, rows: number, id: string, value: number, cells: number) =>
    `have ${columns} × ${rows} cells, but ${id} has ${value} × ${cells}; analyse the clip with --grid ${value}x${cells}`,
  fpsIsMust: (text: string) => `--fps is "${text}"; must be a number above 0, at most 1000`,
  sizeIsMust: (text: string) =>
    `--size is "${text}"; must be WIDTHxHEIGHT in pixels, such as 768x576`,
  traceIsMust: (which: string) =>
    `--trace is "${which}"; must be DETECTION:TARGET, such as edge:3, or DETECTION`,
  isNoDetection: (m: string | undefined, known: readonly string[]) =>
    `"${m}" is not a detection of this camera; it has ${known.join(', ') || 'none'}`,
  detectionIsSwitched: (m: string | undefined) => `detection "${m}" is switched off`,
  looksAtWhole: (m: string | undefined) =>
    `"${m}" looks at whole frames, and there are none; give --measures`,
  traceIsLooks: (which: string, m: string | undefined) =>
    `--trace is "${which}"; ${m} looks at targets, so that one must be named: DETECTION:TARGET, such as ${m}:3`,
  targetIsNotInThe: (m: string) => `target ${m} is not in the tracks`,
  giveOnePlanNotN: (positionals: number, usage: string) =>
    `give one plan, not ${positionals}\n${usage}`,
  giveOneScript: (n: number, usage: string) => `give one script, not ${n}\n${usage}`,
  hasNoScene: (camera: string, known: string) => `"${camera}" has no scene; there are ${known}`,
  hasNoScript: (script: string, camera: string, known: string) =>
    `"${script}" does not exist; ${camera} has ${known}`,
  cannotTrigger: (detections: string) => `without --measures ${detections} cannot trigger\n`,
  triggers: (n: number) => `${count(n, 'trigger')}\n`,
  whichSite: (ids: readonly string[]) => `Say which site with --site: ${ids.join(', ')}.`,
  isMissingN: (name: string, usage: string) => `--${name} is missing\n${usage}`,
  isNotIn: (cameraId: string, cameras: readonly string[]) =>
    `"${cameraId}" is not in the plan; it has ${cameras.join(', ') || 'none'}`,
  instantIsMust: (option: string, text: string) =>
    `--${option} is "${text}"; must be an instant with its offset from UTC, such as 2026-11-24T18:30:00Z`,
  toIsNotLater: '--to must be later than --from',
  nothingOfCamera: (camera: string, folder: string, known: readonly string[]) =>
    `nothing of camera "${camera}" is in ${folder}; there are ${known.join(', ') || 'no cameras'}`,
  wroteRows: (rows: number, file: string, fps: number, size: string) =>
    `${count(rows, 'row')} in ${file}, at ${fps} frames/s, in pixels of ${size}\n`,
  notHeard: (seconds: number) =>
    `Not listened to for ${Math.round(seconds)} s of it: what was there then is not known\n`,
  startForEachTracks: (tracks: number, starts: number) =>
    `--tracks is given ${count(tracks, 'time')}, --start ${count(starts, 'time')}; each file needs its own start`,
  valuesAreMust: (text: string) =>
    `--values is "${text}"; must be numbers with commas, such as 1,2,5`,
  isNoSetting: (setting: string, known: readonly string[]) =>
    `"${setting}" is no number that this detection has; it has ${known.join(', ')}`,
  looking: (share: number) => `looking for settings, ${wholePercent(share)}`,
  traceAndExpectedDoNot: (usage: string) => `--trace and --expected do not go together\n${usage}`
})
