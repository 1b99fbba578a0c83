import { toRule, type Loss } from '../formats/onvif/toRule.ts'
import type { Detection, Schedule } from '../formats/plan.ts'
import type { CameraFacts, ChannelFacts } from './facts.ts'
import { ruleTypeOf } from '../kinds/rules.ts'
import type { Rule } from '../formats/onvif/rule.ts'

/** A way for a detection to a device. */
export interface DeviceRoute {
  channel: ChannelFacts
  rule: Rule
  losses: Loss[]
}

/** The routes that can hold a detection. */
export const routesOf = (
  camera: CameraFacts,
  d: Detection,
  schedules: readonly Schedule[],
  used = true
): DeviceRoute[] =>
  camera.channels.flatMap((channel) => {
    if (channel.readAt === null || channel.used !== used) return []
    const translated = toRule(d, channel.abilities, schedules)
    return translated ? [{ channel, ...translated }] : []
  })

/** Whether the kind is one that a device does at all. */
export const isRule = (d: Detection): boolean => ruleTypeOf(d.kind) !== undefined

/** Losses that no other used route makes good. */
export function realLosses(doors: readonly DeviceRoute[]): { door: DeviceRoute; loss: Loss }[] {
  const seen = new Set<string>()
  return doors
    .flatMap((door) => door.losses.map((loss) => ({ door, loss })))
    .filter(({ loss }) => {
      if (
        seen.has(loss.setting) ||
        doors.some((other) => other.losses.every(({ setting }) => setting !== loss.setting))
      )
        return false
      seen.add(loss.setting)
      return true
    })
}
