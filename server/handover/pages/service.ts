import type { ServiceItem, SiteRecord } from '../../../core/handover/record.ts'
import { areas, changeWords, recordPages as msg } from '../../../core/messages/en/handover.ts'
import { digestGroups } from '../../../core/handover/digest.ts'
import type { PageContext } from './context.ts'
import { summaryOf, writeNote } from './cover.ts'
import { COLOURS, type Cell } from './sheet.ts'

/** A service visit, on two pages: what was looked at, and what has changed since the record that it is compared with. */

const OF_DEVICES = ['read', 'firmware', 'clock', 'storage'] as const

const colourOf = (result: ServiceItem['result']): string =>
  result === 'good' ? COLOURS.accent : result === 'look' ? COLOURS.rust : COLOURS.quiet

/** What is good is said in one word; what is to be looked at, whole. */
const cellOf = (item: ServiceItem | undefined): Cell =>
  item
    ? {
        text: item.result === 'good' ? msg.results.good : item.sentence,
        colour: colourOf(item.result)
      }
    : ''

export function writeService(
  context: PageContext,
  { number, madeAt, digest, items, changes }: NonNullable<SiteRecord['service']>
): void {
  const { sheet, when } = context
  sheet.text(summaryOf(context).join(' · '), { after: 8 })
  sheet.text(msg.comparedWith(number, when(madeAt)), { after: 2 })
  sheet.facts([[msg.comparedDigest, digestGroups(digest).join(' ')]])
  const isOfDevice = (what: ServiceItem['what']): boolean =>
    (OF_DEVICES as readonly string[]).includes(what)
  const devices = [...new Set(items.flatMap((i) => (isOfDevice(i.what) ? (i.where ?? []) : [])))]
  if (devices.length)
    sheet.table(
      [
        { title: msg.items.read, share: 1.4 },
        { title: msg.state, share: 1.5 },
        ...OF_DEVICES.slice(1).map((what) => ({ title: msg.items[what], share: 1.2 }))
      ],
      devices.map((where) => [
        where,
        ...OF_DEVICES.map((what) => cellOf(items.find((i) => i.where === where && i.what === what)))
      ]),
      { size: 8 }
    )
  sheet.table(
    [
      { title: msg.item, share: 0.8 },
      { title: '', share: 1.5 },
      { title: msg.finding, share: 3 }
    ],
    items
      .filter(({ what }) => !isOfDevice(what))
      .map(({ what, where, result, sentence }): Cell[] => [
        msg.items[what],
        where ?? '',
        { text: sentence, colour: colourOf(result) }
      ]),
    { size: 8 }
  )
  writeNote(context)
  sheet.part(msg.changes, 60)
  if (!changes.length) {
    sheet.text(msg.noChanges, { colour: COLOURS.quiet })
    return
  }
  sheet.table(
    [
      { title: msg.item, share: 0.9 },
      { title: '', share: 2 },
      { title: msg.change, share: 4 }
    ],
    changes.map(({ area, where, name, change, settings }) => [
      areas[area],
      [where, name].filter(Boolean).join(', '),
      settings.length
        ? settings.map((s) => changeWords.fromTo(s.setting, s.before, s.after)).join('\n')
        : changeWords[change]
    ]),
    { size: 8 }
  )
}
