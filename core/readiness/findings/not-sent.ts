import { standingOf, unmanagedOf } from '../../devices/standing.ts'
import { ofDevice, type Check } from '../facts.ts'

export const notSent: Check = {
  code: 'not-sent',
  find: ({ cameras, schedules, devices }) => [
    ...devices.flatMap(({ id, name, outputsWaiting }) =>
      outputsWaiting.length
        ? [
            ofDevice(
              'warning',
              id,
              `${name} does not set off ${outputsWaiting.join(' and ')} by itself yet: the server does it, for as long as it runs.`,
              { does: 'send', words: 'Send', devices: [id] },
              cameras.find((c) => c.channels.some((ch) => ch.device === id))?.id ?? null
            )
          ]
        : []
    ),
    ...cameras.flatMap((camera) =>
      camera.channels
        .filter((c) => c.used && c.readAt !== null)
        .flatMap((channel) => {
          const waiting = camera.detections
            .map((d) => standingOf(d, channel, schedules, []))
            .filter(({ state }) => state === 'missing' || state === 'differs')
          const unmanaged = unmanagedOf(camera.detections, channel)
          const count = waiting.length + unmanaged.length
          if (!count) return []
          return ofDevice(
            'warning',
            channel.device,
            `${count} ${count === 1 ? 'change is' : 'changes are'} not on ${channel.deviceName} yet (${[...waiting, ...unmanaged].map(({ name }) => name).join(', ')}): ${camera.name} works as it was before.`,
            { does: 'send', words: 'Send', devices: [channel.device] },
            camera.id
          )
        })
    )
  ]
}
