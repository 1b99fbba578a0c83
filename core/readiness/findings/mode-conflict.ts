import { said } from '../../messages/said.ts'
import { localName } from '../../formats/onvif/rule.ts'
import { inUse, ofDevice, type Check } from '../facts.ts'
import { ruleTypeOf } from '../../kinds/rules.ts'

export const modeConflict: Check = {
  code: 'mode-conflict',
  find: ({ cameras }) =>
    cameras.flatMap((camera) =>
      camera.channels
        .filter((c) => c.used && c.modes.length > 1)
        .flatMap((channel) => {
          const needed = channel.modes.filter(({ runs }) =>
            inUse(camera).some((d) => runs.includes(ruleTypeOf(d.kind) ?? ''))
          )
          if (needed.length < 2) return []
          const names = needed.map(({ type }) => localName(type))
          return ofDevice(
            'blocking',
            channel.device,
            said('readiness.modeConflict', camera.name, names, channel.deviceName),
            null,
            camera.id
          )
        })
    )
}
