import { wordsOf } from '../../core/messages/words.ts'
import { capital } from '../../core/messages/format.ts'
import { abilities as msg } from '../../core/messages/en/upkeep.ts'
import type { AbilitiesView } from '../../core/devices/upkeep.ts'
import type { DeviceView } from '../../core/devices/views.ts'
import { kindNames } from '../../core/kinds/names.ts'

/** What works with a device, for a support case: as text, with what the device calls itself. No password is in it. */
export function abilityText(
  { name, address, information: i }: DeviceView,
  { at, abilities }: AbilitiesView,
  dateAndTime: (at: number) => string
): string {
  const facts = [
    name,
    ...(i ? [`${i.manufacturer} ${i.model}`, msg.firmware(i.firmware), msg.serial(i.serial)] : []),
    address,
    dateAndTime(at)
  ]
  const lines = abilities.map(({ ability, kind, channel, state, says }) =>
    [
      `${channel === null ? '' : `${channel}: `}${kind === null ? msg.names[ability] : capital(kindNames[kind])}`,
      msg.states[state],
      ...(says === null ? [] : [wordsOf(says)])
    ].join('\t')
  )
  return `${[...facts, '', ...lines].join('\n')}\n`
}
