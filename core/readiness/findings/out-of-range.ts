import { said, type SettingName } from '../../messages/said.ts'
import { fromScale } from '../../formats/onvif/rule.ts'
import { takeOver } from '../../formats/onvif/takeOver.ts'
import { routesOf, realLosses } from '../deviceRoutes.ts'
import { edit, ofDetection, perDetection } from '../facts.ts'

/** Settings that have a nearest value, and where the plan has them. */
const fields: Readonly<Partial<Record<SettingName, string>>> = {
  sensitivity: 'sensitivity',
  dwell: 'dwellSeconds',
  confirm: 'confirmSeconds',
  holdOff: 'holdOffSeconds',
  grace: 'graceSeconds',
  delay: 'delaySeconds',
  onDelay: 'onDelaySeconds',
  offDelay: 'offDelaySeconds',
  together: 'atLeast'
}

/**
 * A value beyond the device's scale blocks: what happens on site is something else. One between two steps of a coarse
 * scale is a hint: no such device could be used otherwise.
 */
export const outOfRange = perDetection('out-of-range', (d, camera, { schedules }) =>
  realLosses(routesOf(camera, d, schedules))
    .filter(({ loss }) => loss.nearest !== null && loss.setting in fields)
    .map(({ door, loss }) => {
      const field = fields[loss.setting]!
      const held = {
        ...takeOver(d, door.rule, door.channel.abilities),
        ...(field === 'atLeast' && { atLeast: 1 })
      } as Record<string, unknown>
      const step = loss.setting === 'sensitivity'
      // An import leaves a sensitivity of the same step alone; here the step's own value is wanted.
      const range = door.channel.abilities.find(({ type }) => type === door.rule.type)!.ranges
        .Sensitivity!
      const nearest = step ? fromScale(Number(door.rule.simple.Sensitivity), range) : held[field]
      return ofDetection(
        step ? 'hint' : 'blocking',
        'sent',
        camera,
        d,
        said(
          'readiness.outOfRange',
          d.name,
          door.channel.deviceName,
          said(`settings.${loss.setting}`),
          loss.wanted,
          loss.nearest!
        ),
        edit(
          camera,
          { ...d, [field]: nearest },
          said(
            'readiness.useInPlan',
            step ? said('values.number', nearest as number) : loss.nearest!
          )
        ),
        door.channel.device
      )
    })
)
