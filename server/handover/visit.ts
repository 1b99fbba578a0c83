import { readFile } from 'node:fs/promises'
import { join } from 'node:path'
import { isReachable, type DeviceState } from '../../core/devices/views.ts'
import { isFull } from '../../core/devices/upkeep.ts'
import type {
  RecordedState,
  RecordPicture,
  ServiceItem,
  SiteRecord
} from '../../core/handover/record.ts'
import { causes } from '../../core/messages/en/codes/conditions.ts'
import { settingSeconds } from '../../core/messages/format.ts'
import { said, type Said } from '../../core/messages/said.ts'
import { wordsOf } from '../../core/messages/words.ts'
import { comparePictures } from '../../analysis/measures/comparePictures.ts'

/** What a service visit looks at by itself, each with what it found. */

/** A clock that is off by more is looked at. */
const CLOCK_SECONDS = 2

interface Visit {
  before: SiteRecord
  /** The folder of that record. */
  beforeFolder: string
  now: RecordedState
  cameras: SiteRecord['cameras']
  folder: string
  startedAt: number
  walked: { passed: number; of: number }
}

const item = (
  what: ServiceItem['what'],
  where: string | null,
  result: ServiceItem['result'],
  sentence: Said
): ServiceItem => ({ what, where, result, sentence: wordsOf(sentence) })

function ofDevice(
  d: RecordedState['devices'][number],
  before: RecordedState['devices'][number] | undefined
): ServiceItem[] {
  if (d.trouble !== null || !isReachable(d.state as DeviceState))
    return [item('read', d.name, 'look', said('serviceVisit.notRead', d.trouble ?? d.state))]
  const changed = d.channels.flatMap((c) => c.holdings.filter((h) => h.state === 'drifted'))
  const found = [
    changed.length
      ? item('read', d.name, 'look', said('serviceVisit.changedOnDevice', changed.length))
      : item('read', d.name, 'good', said('serviceVisit.holdsAll'))
  ]
  if (before && before.firmware !== null && d.firmware !== null)
    found.push(
      before.firmware === d.firmware
        ? item('firmware', d.name, 'good', said('serviceVisit.sameFirmware', d.firmware))
        : item(
            'firmware',
            d.name,
            'look',
            said('serviceVisit.otherFirmware', before.firmware, d.firmware)
          )
    )
  if (d.clockAhead !== null) {
    const off = Math.abs(d.clockAhead)
    found.push(
      off <= CLOCK_SECONDS
        ? item(
            'clock',
            d.name,
            'good',
            said('serviceVisit.clockRight', settingSeconds(CLOCK_SECONDS))
          )
        : item('clock', d.name, 'look', said('serviceVisit.clockOff', settingSeconds(off)))
    )
  }
  const full = d.storage?.find((s) => isFull(s))
  if (d.storage?.length)
    found.push(
      full && full.whenFull !== 'overwrite'
        ? item('storage', d.name, 'look', said('serviceVisit.storageFull', full.place))
        : item('storage', d.name, 'good', said('serviceVisit.storageGood'))
    )
  return found
}

async function ofPicture(
  name: string,
  before: RecordPicture | null,
  beforeFolder: string,
  now: RecordPicture | null,
  folder: string,
  missing: string | null
): Promise<ServiceItem> {
  if (!now)
    return item('picture', name, 'look', said('serviceVisit.pictureNotCompared', missing ?? ''))
  if (!before)
    return item(
      'picture',
      name,
      'not-done',
      said('serviceVisit.pictureNotCompared', said('serviceVisit.noEarlierPicture'))
    )
  const found = await comparePictures(
    await readFile(join(beforeFolder, before.file)),
    await readFile(join(folder, now.file))
  )
  return found.length
    ? item(
        'picture',
        name,
        'look',
        said(
          'serviceVisit.pictureDiffers',
          found.map((cause) => causes[cause])
        )
      )
    : item('picture', name, 'good', said('serviceVisit.pictureSame'))
}

/** The items of a visit: devices, pictures, checks, walks, outputs. */
export async function serviceItems({
  before,
  beforeFolder,
  now,
  cameras,
  folder,
  startedAt,
  walked
}: Visit): Promise<ServiceItem[]> {
  const items = now.devices.flatMap((d) =>
    ofDevice(
      d,
      before.devices.find(({ id }) => id === d.id)
    )
  )
  for (const { id, name } of now.site.cameras) {
    const own = cameras.find((c) => c.id === id)
    items.push(
      await ofPicture(
        name,
        before.cameras.find((c) => c.id === id)?.picture ?? null,
        beforeFolder,
        own?.picture ?? null,
        folder,
        own?.missing ?? null
      )
    )
  }
  const run = now.checks.filter((c) => c.by !== 'person' && c.result?.current)
  const passed = run.filter((c) => c.result!.passed).length
  items.push(
    run.length
      ? item(
          'checks',
          null,
          passed === run.length ? 'good' : 'look',
          said('serviceVisit.checks', passed, run.length)
        )
      : item('checks', null, 'not-done', said('serviceVisit.noChecks')),
    walked.of
      ? item(
          'walk',
          null,
          walked.passed === walked.of ? 'good' : 'look',
          said('serviceVisit.walked', walked.passed, walked.of)
        )
      : item('walk', null, 'not-done', said('serviceVisit.notWalked'))
  )
  for (const { id, testedAt, error } of now.endpoints) {
    const name = now.site.endpoints.find((e) => e.id === id)?.name ?? id
    items.push(
      testedAt === null || testedAt < startedAt
        ? item('output', name, 'not-done', said('serviceVisit.outputNotTested'))
        : error === null
          ? item('output', name, 'good', said('serviceVisit.outputTested'))
          : item('output', name, 'look', said('serviceVisit.outputFailed', error))
    )
  }
  return items
}
