import { digestGroups } from '../../../core/handover/digest.ts'
import type { DeviceRecord } from '../../../core/handover/record.ts'
import { recordPages as msg } from '../../../core/messages/en/handover.ts'
import { byteSize } from '../../../core/messages/format.ts'
import type { PageContext } from './context.ts'
import { COLOURS } from './sheet.ts'

/** Devices: what they are, where they are reached, and how they stood when they were read. */

type Storage = NonNullable<DeviceRecord['storage']>[number]

const storageOf = ({ place, bytes, free, whenFull }: Storage): string =>
  [
    msg.storageOf(
      place,
      free === null ? null : byteSize(free),
      bytes === null ? null : byteSize(bytes)
    ),
    ...(whenFull === null ? [] : [whenFull === 'overwrite' ? msg.overwrites : msg.stops])
  ].join(', ')

export function writeDevices({ sheet, record, when, cameraName }: PageContext): void {
  sheet.chapter(msg.devicesTitle)
  if (!record.devices.length) sheet.text(msg.noDevices, { colour: COLOURS.quiet })
  for (const d of record.devices) {
    // A device stands on one page.
    sheet.part(d.name, 150 + 13 * (d.channels.length + (d.storage?.length ?? 0)))
    const pairs: [string, string | null][] = [
      [msg.make, [d.manufacturer, d.model].filter(Boolean).join(' ') || null],
      [msg.firmware, d.firmware],
      [msg.serial, d.serial],
      [msg.address, d.address],
      [
        msg.state,
        d.trouble === null
          ? d.readAt === null
            ? msg.notRead
            : msg.readAt(when(d.readAt))
          : msg.notReadSince(d.trouble)
      ],
      [msg.clock, d.clockAhead === null ? null : msg.clockBy(d.clockAhead)],
      [msg.account, d.account],
      [msg.accounts, d.accounts?.join(', ') || null],
      [
        msg.certificate,
        d.certificate && digestGroups(d.certificate.replaceAll(':', '').toLowerCase()).join(' ')
      ],
      [msg.storage, d.storage?.map(storageOf).join('\n') || null],
      [
        msg.route,
        [...new Set(d.channels.map((c) => msg.channel(c.name, cameraName(c.camera))))].join('\n') ||
          null
      ]
    ]
    sheet.facts(pairs.flatMap(([name, value]) => (value === null ? [] : [[name, value] as const])))
  }
}
