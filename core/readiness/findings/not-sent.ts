import { said } from '../../messages/said.ts'
import { isToldSurroundings, standingOf, unmanagedOf } from '../../devices/standing.ts'
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
              said('readiness.outputsNotSent', name, outputsWaiting),
              { does: 'send', words: said('readiness.send'), devices: [id] },
              cameras.find((c) => c.channels.some((ch) => ch.device === id))?.id ?? null
            )
          ]
        : []
    ),
    ...cameras.flatMap(({ id, name, channels }) =>
      channels
        .filter((c) => c.used)
        .filter(isToldSurroundings)
        .map(({ device, deviceName, surroundings }) =>
          ofDevice(
            'warning',
            device,
            said('readiness.surroundingsNotSent', deviceName, name, surroundings.wanted),
            { does: 'send', words: said('readiness.send'), devices: [device] },
            id
          )
        )
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
            said(
              'readiness.notSent',
              count,
              channel.deviceName,
              [...waiting, ...unmanaged].map(({ name }) => name).join(', '),
              camera.name
            ),
            { does: 'send', words: said('readiness.send'), devices: [channel.device] },
            camera.id
          )
        })
    )
  ]
}
