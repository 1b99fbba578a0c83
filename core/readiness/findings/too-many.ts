import { said, type Said } from '../../messages/said.ts'
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
          const say = (sentence: Said) =>
            ofDevice('blocking', channel.device, sentence, null, camera.id)
          const perType = channel.abilities.flatMap(({ type, most }) => {
            const count = wanted.filter((rule) => rule.type === type).length
            return most !== null && count > most
              ? say(
                  said(
                    'readiness.tooManyOfKind',
                    camera.name,
                    count,
                    kindOfType(type) ? said(`kindNames.${kindOfType(type)!}`) : type,
                    channel.deviceName,
                    most
                  )
                )
              : []
          })
          return channel.mostRules !== null && wanted.length > channel.mostRules
            ? [
                ...perType,
                say(
                  said(
                    'readiness.tooMany',
                    camera.name,
                    wanted.length,
                    channel.deviceName,
                    channel.mostRules
                  )
                )
              ]
            : perType
        })
    )
}
