import { userInfo } from 'node:os'
import { join, resolve } from 'node:path'
import { UsageError, readOptions, runCommand, textOf } from '../../core/cli/options.ts'
import { digestOfRecord } from '../../core/handover/digest.ts'
import { standingOf } from '../../core/handover/obstacles.ts'
import { findings as severityNames } from '../../core/messages/en/readiness.ts'
import { handoverPlace, recordCommand as msg } from '../../core/messages/en/handover.ts'
import { usage as usages } from '../../core/messages/en/usage.ts'
import { errorWords } from '../../core/messages/errorWords.ts'
import { said } from '../../core/messages/said.ts'
import { wordsOf } from '../../core/messages/words.ts'
import { ApiError } from '../../core/apiError.ts'
import { InputError } from '../../core/errors.ts'
import { Clips } from '../clips/service.ts'
import { Database } from '../database.ts'
import { Devices } from '../devices/service.ts'
import { Leftovers, writeWhole } from '../files.ts'
import { openKeys } from '../keys.ts'
import { readDatabaseUrl } from '../launch/databaseUrl.ts'
import { openInstallation } from '../launch/installation.ts'
import { Provers } from '../proving/provers.ts'
import { Proving } from '../proving/service.ts'
import { Readiness } from '../readiness/service.ts'
import { siteIds } from '../sites/queries.ts'
import { folderOf, makeRecord, type MakeSources } from './make.ts'
import { zipOf } from './files.ts'
import { listAccepted } from './queries.ts'

/** npm run record: makes a record beside the application, which may be running or not. */

await runCommand(async (args) => {
  const text = { type: 'string' } as const
  const { values, positionals } = readOptions(
    args,
    {
      out: text,
      data: text,
      database: text,
      site: text,
      client: text,
      installer: text,
      note: text,
      paper: text,
      'allow-open': { type: 'boolean' },
      silent: { type: 'boolean' },
      help: { type: 'boolean' }
    },
    usages.record
  )
  if (values.help) {
    process.stdout.write(`${usages.record}\n`)
    return
  }
  const may = (name: string): string | undefined => textOf(values, name)
  const out = may('out')
  if (out === undefined || positionals.length) throw new UsageError(null, usages.record)
  const paper = may('paper') ?? 'a4'
  if (paper !== 'a4' && paper !== 'letter') throw new UsageError(null, usages.record)
  const folder = resolve(may('data') ?? '.data')
  const url = may('database') ?? process.env.WARDOPTIC_DATABASE
  const installation = await openInstallation(
    folder,
    url === undefined ? null : readDatabaseUrl(url)
  )
  const log = (error: unknown): void => void process.stderr.write(`${errorWords(error)}\n`)
  const database = await Database.open(installation.address, installation.name)
  const keys = await openKeys(database, folder, false)
  const leftovers = new Leftovers(database, log)
  const clips = new Clips(database, join(folder, 'clips'), 0, leftovers, log)
  // The application listens to the devices, when it runs; here they are only read.
  const devices = new Devices(database, keys.devices, log, { listens: false })
  const proving = new Proving(database, clips, new Provers(join(folder, 'walks')), log)
  const sources: MakeSources = {
    database,
    clips,
    devices,
    proving,
    readiness: new Readiness(database, clips, proving),
    folder: join(folder, 'records')
  }
  try {
    const site = await siteFor(database, may('site'))
    let step = ''
    const record = await makeRecord(
      sources,
      site,
      {
        client: may('client') ?? '',
        installer: may('installer') ?? '',
        note: may('note') ?? '',
        paper,
        runChecks: true,
        allowOpen: values['allow-open'] === true,
        service: false
      },
      { by: userInfo().username, byId: null },
      {
        signal: new AbortController().signal,
        step: (next) => {
          if (next !== step && !values.silent)
            process.stderr.write(msg.step(handoverPlace.steps[next]))
          step = next
        }
      }
    ).catch(async (error: unknown) => {
      const why = error instanceof ApiError ? error.said : null
      if (why && typeof why !== 'string' && why.code === 'handover.standsInTheWay')
        await sayIssues(sources, site)
      // It says what is wrong to whoever has called; a stack would only hide it.
      throw why ? new InputError('', why) : error
    })
    await writeWhole(
      resolve(out),
      await zipOf(folderOf(sources.folder, site, record.number), record, [])
    )
    process.stdout.write(msg.made(out, record.number, digestOfRecord(record)))
  } finally {
    await proving.close()
    await devices.close()
    await leftovers.close()
    await database.close()
    await installation.stop()
  }
})

/** The site that is meant: the only one, when none is named. */
async function siteFor(database: Database, named: string | undefined): Promise<string> {
  const all = await siteIds(database)
  if (named === undefined && all.length === 1) return all[0]!
  if (named !== undefined && all.includes(named)) return named
  throw new UsageError(said('cli.whichSite', all))
}

async function sayIssues(sources: MakeSources, site: string): Promise<void> {
  const { findings } = await sources.readiness.read(site)
  for (const { severity, sentence } of standingOf(
    findings,
    await listAccepted(sources.database, site)
  ).open)
    process.stderr.write(msg.issue(severityNames[severity], wordsOf(sentence)))
}
