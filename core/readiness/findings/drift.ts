import { standingOf } from '../../devices/standing.ts'
import { ofDetection, type Check } from '../facts.ts'

export const drift: Check = {
  code: 'drift',
  find: ({ cameras, schedules }) =>
    cameras.flatMap((camera) =>
      camera.channels
        .filter((c) => c.used && c.readAt !== null)
        .flatMap((channel) =>
          camera.detections.flatMap((d) => {
            const { state, differences } = standingOf(d, channel, schedules, [])
            if (state !== 'drifted') return []
            return ofDetection(
              'blocking',
              'sent',
              camera,
              d,
              `${d.name} was changed on ${channel.deviceName} since it was sent: ${differences.map(({ setting, plan, device }) => `${setting} ${plan}, now ${device}`).join('; ')}. Put it back, or take it over under Devices.`,
              { does: 'send', words: 'Put back what was sent', devices: [channel.device] },
              channel.device
            )
          })
        )
    )
}
