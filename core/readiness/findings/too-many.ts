import { wantedRules } from '../../devices/standing.ts'
import { ofDevice, type Check } from '../facts.ts'
import { kindOfType } from '../../kinds/rules.ts'

export const tooMany: Check = {
  code: 'too-many',
  find: ({ cameras, schedules }) =>
    cameras.flatMap((camera) =>
      camera.channels
        .filter((c) => c.used && c.readAt !== null)
        .flatMap((channel) => {
          const wanted = wantedRules(camera.detections, channel, schedules)
          const say = (count: number, what: string, most: number) =>
            ofDevice(
              'blocking',
              channel.device,
              `${camera.name} has ${count} ${what}, and ${channel.deviceName} takes ${most}: ${count - most} of them will be refused.`,
              null,
              camera.id
            )
          const perType = channel.abilities.flatMap(({ type, most }) => {
            const count = wanted.filter((rule) => rule.type === type).length
            return most !== null && count > most
              ? say(count, `detections of the kind ${kindOfType(type) ?? type}`, most)
              : []
          })
          return channel.mostRules !== null && wanted.length > channel.mostRules
            ? [...perType, say(wanted.length, 'detections', channel.mostRules)]
            : perType
        })
    )
}
