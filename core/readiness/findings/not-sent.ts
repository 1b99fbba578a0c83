import { standingOf, strangersOf } from '../../devices/standing.ts'
import { ofDevice, type Check } from '../facts.ts'

export const notSent: Check = {
  code: 'not-sent',
  find: ({ cameras, schedules }) =>
    cameras.flatMap((camera) =>
      camera.channels.filter((c) => c.used && c.readAt !== null).flatMap((channel) => {
        const waiting = camera.detections.map((d) => standingOf(d, channel, schedules, [])).filter(({ state }) => state === 'missing' || state === 'differs')
        const strangers = strangersOf(camera.detections, channel)
        const count = waiting.length + strangers.length
        if (!count) return []
        return ofDevice('warning', channel.device, `${count} ${count === 1 ? 'change is' : 'changes are'} not on ${channel.deviceName} yet (${[...waiting, ...strangers].map(({ name }) => name).join(', ')}): ${camera.name} works as it was before.`, { does: 'send', words: 'Send', devices: [channel.device] }, camera.id)
      })
    )
}
