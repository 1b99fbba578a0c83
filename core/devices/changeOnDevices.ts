import { toRule, type Loss } from '../formats/onvif/toRule.ts'
import type { Detection, Schedule } from '../formats/plan.ts'
import type { DeviceView } from './views.ts'

/** What of a change a device cannot hold as it is. */
export interface ChangeOnDevice {
  /** Its name. */
  device: string
  losses: Loss[]
}

const keyOf = ({ setting, wanted, nearest }: Loss): string =>
  JSON.stringify([setting, wanted, nearest])

/**
 * What the devices of a camera make of a change of a detection, before it is sent: of each that is used and has such a
 * rule, the settings that it would lose and that it does not lose already.
 *
 * @param schedules of the plan
 */
export const changeOnDevices = (
  before: Detection,
  after: Detection,
  camera: string,
  devices: readonly Pick<DeviceView, 'name' | 'channels'>[],
  schedules: readonly Schedule[]
): ChangeOnDevice[] =>
  devices.flatMap(({ name, channels }) =>
    channels
      .filter((channel) => channel.camera === camera && channel.used)
      .flatMap(({ abilities }) => {
        const then = toRule(after, abilities, schedules)
        if (!then) return []
        const lost = new Set(toRule(before, abilities, schedules)?.losses.map(keyOf))
        return { device: name, losses: then.losses.filter((loss) => !lost.has(keyOf(loss))) }
      })
  )
