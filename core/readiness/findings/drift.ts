import { said } from '../../messages/said.ts'
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
              said(
                'readiness.drift',
                d.name,
                channel.deviceName,
                differences.map(({ setting, plan, device }) =>
                  said('readiness.settingNow', setting, plan, device)
                )
              ),
              {
                does: 'send',
                words: said('readiness.restore'),
                devices: [channel.device]
              },
              channel.device
            )
          })
        )
    )
}
