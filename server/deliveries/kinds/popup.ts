import { said, type Said } from '../../../core/messages/said.ts'
import type { EndpointOf } from '../../../core/formats/actions.ts'
import { short, happeningOf, type DeliveryKind } from './kind.ts'

const shownIn = (windows: number): Said => said('deliveries.shown', windows)

export const popup: DeliveryKind<EndpointOf<'popup'>> = {
  send: async ({ popups }, due, { sound }) => ({
    outcome: shownIn(
      await popups.show(due.site.id, {
        id: due.id,
        alarm: due.alarm,
        clip: due.trigger?.clip != null,
        said: happeningOf(due),
        sound
      })
    )
  }),
  test: async ({ popups }, { name, sound }, site) =>
    shownIn(
      await popups.show(site.id, {
        id: 0,
        alarm: null,
        clip: false,
        said: said('deliveries.testPopup', name),
        sound
      })
    ),
  recipient: () => '',
  patience: short,
  atOnce: 4
}
