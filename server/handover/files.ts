import { mkdir, readFile, readdir } from 'node:fs/promises'
import { dirname, join, relative } from 'node:path'
import { strToU8, unzipSync, zipSync, type Zippable } from 'fflate'
import { canonical } from '../../core/history/states.ts'
import { writeCalendar } from '../../core/formats/iCalendar.ts'
import { junitOf } from '../../core/handover/junit.ts'
import { MANIFEST, SIGNATURES, manifestOf } from '../../core/handover/manifest.ts'
import type { Signature, SiteRecord } from '../../core/handover/record.ts'
import { causesAndEffects, csvOf, stationList, type Table } from '../../core/handover/tables.ts'
import { InputError } from '../../core/errors.ts'
import { recordFiles as msg } from '../../core/messages/en/handover.ts'
import { said } from '../../core/messages/said.ts'
import { writeWhole } from '../files.ts'

/** The files beside a record, and the ZIP file with all of them. */

export const PAGES = 'record.pdf'
const SITE = 'site.zip'
/** Pictures and archives do not get smaller. */
const PACKED = /\.(?:jpg|png|pdf|zip|xlsx)$/
const MAX_UNPACKED = 500 * 2 ** 20

/** The table as a sheet whose heading and first two columns stay in sight. */
async function workbookOf({ columns, rows }: Table): Promise<Uint8Array> {
  const { default: writeXlsxFile } = await import('write-excel-file/node')
  const file = writeXlsxFile(
    [
      columns.map((value) => ({ value, fontWeight: 'bold' as const, type: String })),
      ...rows.map((row) => row.map((value) => ({ value, type: String })))
    ],
    {
      sheet: msg.sheet,
      stickyRowsCount: 1,
      stickyColumnsCount: 2,
      columns: columns.map((name, i) => ({
        width: Math.min(40, Math.max(name.length, ...rows.map((row) => row[i]!.length)) + 2)
      }))
    }
  )
  return file.toBuffer()
}

/** Writes what is made from the record alone. @param site the site's archive, as it is exported */
export async function writeFiles(folder: string, record: SiteRecord, site: Buffer): Promise<void> {
  const { timeZone, position } = record.site.site
  const table = causesAndEffects(record.site)
  const files: [string, string | Uint8Array][] = [
    [SITE, site],
    ['causes-effects.csv', csvOf(table)],
    ['causes-effects.xlsx', await workbookOf(table)],
    ['station.csv', csvOf(stationList(record.site))],
    ['checks.junit.xml', junitOf(record)],
    ...record.site.schedules.map((schedule): [string, string] => [
      `schedules/${schedule.id}.ics`,
      writeCalendar(schedule, { timeZone, position: position ?? undefined }, record.madeAt)
    ])
  ]
  for (const [file, content] of files) {
    await mkdir(dirname(join(folder, file)), { recursive: true })
    await writeWhole(join(folder, file), content)
  }
}

/** All files of a record as they are kept, with what was signed since, and the manifest. */
export async function zipOf(
  folder: string,
  record: SiteRecord,
  signatures: readonly Signature[]
): Promise<Uint8Array> {
  const files = new Map<string, Uint8Array>()
  for (const entry of await readdir(folder, { recursive: true, withFileTypes: true })) {
    if (!entry.isFile()) continue
    const path = join(entry.parentPath, entry.name)
    files.set(relative(folder, path), new Uint8Array(await readFile(path)))
  }
  if (signatures.length) files.set(SIGNATURES, strToU8(canonical(signatures)))
  files.set(MANIFEST, manifestOf(record, files))
  const packed: Zippable = {}
  for (const [file, bytes] of files)
    packed[file] = [bytes, { level: PACKED.test(file) ? 0 : 6, mtime: record.madeAt }]
  return zipSync(packed)
}

/** The files of a ZIP file. @throws InputError for what is none */
export function unzipped(bytes: Uint8Array): Map<string, Uint8Array> {
  let size = 0
  try {
    const files = unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        size += originalSize
        if (size > MAX_UNPACKED) throw new Error('too large')
        return !name.endsWith('/')
      }
    })
    return new Map(Object.entries(files))
  } catch {
    throw new InputError('', said('handover.noZip'))
  }
}
