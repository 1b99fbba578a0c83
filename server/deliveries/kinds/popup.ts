import type { EndpointOf } from '../../../core/formats/actions.ts'
import { short, wordsOf, type DeliveryKind } from './kind.ts'

const shownIn = (windows: number): string =>
  `shown in ${windows} ${windows === 1 ? 'window' : 'windows'}`

export const popup: DeliveryKind<EndpointOf<'popup'>> = {
  send: async ({ popups }, due, { sound }) => ({
    words: shownIn(
      await popups.show({
        id: due.id,
        alarm: due.alarm,
        clip: due.trigger?.clip != null,
        words: wordsOf(due),
        sound
      })
    )
  }),
  test: async ({ popups }, { name, sound }) =>
    shownIn(
      await popups.show({ id: 0, alarm: null, clip: false, words: `Test of ${name}`, sound })
    ),
  recipient: () => 'operators',
  patience: short,
  atOnce: 4
}
