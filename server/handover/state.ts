import { missingOf } from '../../core/formats/actions.ts'
import type {
  CheckRecord,
  DeviceRecord,
  Holding,
  RecordedState
} from '../../core/handover/record.ts'
import type { ChannelDetection, DeviceView } from '../../core/devices/views.ts'
import type { SavedCheck } from '../../core/proving/views.ts'
import { said, type Said } from '../../core/messages/said.ts'
import { wordsOf } from '../../core/messages/words.ts'
import { readEndpoints, readSettings } from '../actions/queries.ts'
import type { Database } from '../database.ts'
import { listDevices, type DeviceRow } from '../devices/queries.ts'
import { readEverything, viewOf } from '../devices/view.ts'
import type { ChannelRow } from '../devices/channelQueries.ts'
import type { Proving } from '../proving/service.ts'
import { readResult } from '../proving/queries.ts'
import { readArchive } from '../sites/archive.ts'

/** The state of a site as a record has it: the plan, the devices as they were read last, tests and results. */

const inWords = (of: Said | string | null): string | null => (of === null ? null : wordsOf(of))

/** What the device has otherwise, then what it cannot hold: each setting once. */
function holdingOf({ id, state, differences, losses }: ChannelDetection): Holding {
  const settings = new Map<string, Holding['settings'][number]>()
  for (const { setting, plan, device } of differences)
    settings.set(wordsOf(setting), {
      setting: wordsOf(setting),
      plan: wordsOf(plan),
      device: wordsOf(device)
    })
  for (const { setting, wanted, nearest } of losses) {
    const name = wordsOf(said(`settings.${setting}`))
    if (!settings.has(name))
      settings.set(name, { setting: name, plan: wordsOf(wanted), device: inWords(nearest) })
  }
  return { detection: id, state, settings: [...settings.values()] }
}

function deviceOf(
  row: DeviceRow,
  view: DeviceView,
  channels: readonly ChannelRow[],
  { troubles, accounts }: DevicesRead
): DeviceRecord {
  const { information } = row
  return {
    id: row.id,
    name: row.name,
    address: row.address,
    state: row.state,
    trouble: inWords(troubles.get(row.id) ?? null),
    readAt: row.readAt,
    manufacturer: information?.manufacturer ?? null,
    model: information?.model ?? null,
    firmware: information?.firmware ?? null,
    serial: information?.serial ?? null,
    clockAhead: row.clockAhead === null ? null : Math.round(row.clockAhead * 10) / 10,
    certificate: row.certificate,
    account: row.username,
    accounts: accounts.has(row.id) ? [...accounts.get(row.id)!] : null,
    storage:
      row.storage?.map(({ place, bytes, free, whenFull }) => ({ place, bytes, free, whenFull })) ??
      null,
    outputs: view.outputs.map(({ token, name, testedAt }) => ({ token, name, testedAt })),
    channels: view.channels.map((c) => ({
      token: c.token,
      name: c.name,
      camera: c.camera,
      used: c.used,
      rules: (channels.find((kept) => kept.device === row.id && kept.token === c.token)?.held ?? [])
        .map(({ name, type, simple, points }) => ({
          name,
          type,
          simple: { ...simple },
          points: points.map(([x, y]) => [x, y])
        }))
        .sort((a, b) => a.name.localeCompare(b.name)),
      holdings: c.detections.map(holdingOf)
    }))
  }
}

async function checkOf(database: Database, saved: SavedCheck): Promise<CheckRecord> {
  const { camera, check, last } = saved
  const verdict = last && (await readResult(database, camera, check.id)).verdict
  return {
    camera,
    id: check.id,
    detection: check.detection,
    name: wordsOf(check.name),
    by: check.by.how,
    expects: check.expect.what,
    result:
      last && verdict
        ? {
            passed: last.passed,
            current: last.current,
            at: last.at,
            sentence: wordsOf(last.sentence),
            hits: verdict.hits,
            misses: verdict.misses,
            false: verdict.false,
            effects: verdict.effects.map(({ name, expected, acts, after, wrong }) => ({
              name,
              expected,
              acts,
              after: after ?? null,
              wrong: inWords(wrong)
            }))
          }
        : null,
    picture: null,
    tracks: null
  }
}

export interface StateSources {
  database: Database
  proving: Proving
}

/** What reading the devices just now has told. */
export interface DevicesRead {
  /** Why some could not be read, by device. */
  troubles: ReadonlyMap<string, Said | string>
  /** Names of their accounts, by device, where they say them. */
  accounts: ReadonlyMap<string, readonly string[]>
}
const NOT_READ: DevicesRead = { troubles: new Map(), accounts: new Map() }

/** @param read left out: devices are as they were read last */
export async function readState(
  { database, proving }: StateSources,
  site: string,
  now: number,
  read = NOT_READ
): Promise<RecordedState> {
  const [archive, rows, everything, endpoints, settings, { checks }] = [
    await readArchive(database, site, now),
    await listDevices(database, site),
    await readEverything(database, site),
    await readEndpoints(database, site),
    await readSettings(database, site),
    await proving.read(site)
  ]
  const known = {
    mail: settings.mail.mail,
    people: settings.people.people,
    outputs: new Set(rows.flatMap((d) => d.outputs.map(({ token }) => `${d.id} ${token}`)))
  }
  const found: CheckRecord[] = []
  for (const saved of checks) found.push(await checkOf(database, saved))
  return {
    site: archive,
    devices: rows.map((row) =>
      deviceOf(row, viewOf(row, everything, false, new Map()), everything.channels, read)
    ),
    endpoints: endpoints.map(({ endpoint, testedAt, testError }) => ({
      id: endpoint.id,
      testedAt,
      error: inWords(testError),
      missing: inWords(missingOf(endpoint, known))
    })),
    checks: found
  }
}
