import { said, type Said, type SettingName } from '../../messages/said.ts'
import { secondsIn } from './durations.ts'
import type { Rule } from './rule.ts'

/** One setting that differs between the plan and the device. */
export interface Difference {
  setting: Said
  plan: Said
  device: Said
}

/** What a rule's parameters mean to people. */
const settingNames: Readonly<Record<string, SettingName>> = {
  Sensitivity: 'sensitivity',
  ClassFilter: 'classes',
  Direction: 'direction',
  TimeThreshold: 'dwell',
  GraceTime: 'grace',
  ConfirmTime: 'confirm',
  HoldOff: 'holdOff',
  MinCount: 'cellCount',
  AlarmOnDelay: 'onDelay',
  AlarmOffDelay: 'offDelay',
  ActiveCells: 'cells',
  DelayTime: 'delay',
  Hours: 'arming',
  Causes: 'causes',
  Mask: 'mask',
  MinimumSize: 'minSize',
  MaximumSize: 'maxSize',
  FaceSize: 'faceSize'
}
const nameOf = (key: string): Said =>
  key in settingNames ? said(`settings.${settingNames[key]!}`) : said('settings.own', key)

/** Devices keep coordinates to some decimals only. */
const SAME_PLACE = 0.002

/** Settings in which a device's rule is not what it should be; empty: it is the same. */
export function differencesOf(wanted: Rule, held: Rule): Difference[] {
  const found: Difference[] = []
  if (wanted.type !== held.type)
    found.push({
      setting: said('settings.kind'),
      plan: said('values.text', wanted.type),
      device: said('values.text', held.type)
    })
  for (const key of new Set([...Object.keys(wanted.simple), ...Object.keys(held.simple)])) {
    const [a, b] = [wanted.simple[key], held.simple[key]]
    if (a !== b && !sameNumber(a, b))
      found.push({ setting: nameOf(key), plan: shown(key, a), device: shown(key, b) })
  }
  const same =
    wanted.points.length === held.points.length &&
    wanted.points.every(
      ([x, y], i) =>
        Math.abs(x - held.points[i]![0]) <= SAME_PLACE &&
        Math.abs(y - held.points[i]![1]) <= SAME_PLACE
    )
  if (!same)
    found.push({
      setting: said('settings.shape'),
      plan: said('values.vertices', wanted.points.length),
      device:
        held.points.length === wanted.points.length
          ? said('values.sameVertices')
          : said('values.vertices', held.points.length)
    })
  return found
}

const sameNumber = (a: string | undefined, b: string | undefined): boolean => {
  const read = (text: string | undefined): number =>
    text === undefined ? NaN : (secondsIn(text) ?? Number(text))
  return Math.abs(read(a) - read(b)) < 1e-6
}

const shown = (key: string, value: string | undefined): Said => {
  if (value === undefined) return said('values.notSet')
  if (key === 'ActiveCells') return said('values.cellPattern')
  const seconds = value.startsWith('PT') ? secondsIn(value) : null
  if (seconds !== null) return said('values.seconds', seconds)
  return said('values.text', value)
}
