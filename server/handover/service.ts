import { join } from 'node:path'
import { readFile, readdir, rm, stat } from 'node:fs/promises'
import { findingKey } from '../../core/readiness/index.ts'
import { changesSince } from '../../core/handover/changes.ts'
import { standingOf } from '../../core/handover/obstacles.ts'
import type { Signature } from '../../core/handover/record.ts'
import type {
  ChangesView,
  HandoverView,
  JobView,
  MakeRecord,
  RecordView
} from '../../core/handover/views.ts'
import { saidOfError } from '../../core/errors.ts'
import { said } from '../../core/messages/said.ts'
import { wordsOf } from '../../core/messages/words.ts'
import { conflict, notFound } from '../errors.ts'
import type { Author } from '../history/queries.ts'
import { readEndpoints } from '../actions/queries.ts'
import { PAGES, zipOf } from './files.ts'
import { folderOf, makeRecord, readKept, type MakeSources } from './make.ts'
import { writePages } from './pagesThreads.ts'
import {
  acceptIssue,
  insertSignature,
  listAccepted,
  listRecords,
  readRecord,
  readVisit,
  startVisit,
  walkedSince
} from './queries.ts'
import { readState } from './state.ts'

/** No record takes as long to be made. */
const LEFT_MS = 3_600_000

interface Job {
  view: JobView
  stop: AbortController
  ended: Promise<void>
}

/** Records of sites: what stands in their way, making them, signing them, and what has changed since. */
export class Handover {
  private readonly sources: MakeSources
  private readonly log: (error: unknown) => void
  /** By site; the last one stays, so that whoever asks learns what became of it. */
  private readonly jobs = new Map<string, Job>()
  /** Pages that are being written, by record: one after the other. */
  private readonly writing = new Map<string, Promise<void>>()
  private readonly parties = new Map<string, NonNullable<HandoverView['last']>>()

  constructor(sources: MakeSources, log: (error: unknown) => void) {
    this.sources = sources
    this.log = log
  }

  /** Takes away what an end in the middle left behind; what a command makes just now stays. */
  async resume(): Promise<void> {
    const { folder } = this.sources
    for (const site of await readdir(folder).catch(() => []))
      for (const name of await readdir(join(folder, site)).catch(() => [])) {
        const path = join(folder, site, name)
        if (name.endsWith('.part') && (await stat(path)).mtimeMs < Date.now() - LEFT_MS)
          await rm(path, { recursive: true, force: true })
      }
  }

  async close(): Promise<void> {
    for (const { stop } of this.jobs.values()) stop.abort()
    await Promise.all([
      ...[...this.jobs.values()].map(({ ended }) => ended),
      ...this.writing.values()
    ])
  }

  async records(site: string): Promise<RecordView[]> {
    return (await listRecords(this.sources.database, site)).map(({ view }) => view)
  }

  async view(site: string): Promise<HandoverView> {
    const { database, readiness } = this.sources
    const [records, { findings }, accepted, visit, endpoints] = await Promise.all([
      this.records(site),
      readiness.read(site),
      listAccepted(database, site),
      readVisit(database, site),
      readEndpoints(database, site)
    ])
    const standing = standingOf(findings, accepted)
    const last = records[0] && (await this.partiesOf(site, records[0].number))
    return {
      records,
      open: standing.open,
      hints: standing.hints,
      accepted,
      job: this.jobs.get(site)?.view ?? null,
      visit: visit && {
        ...visit,
        walked: await walkedSince(database, site, visit.startedAt),
        outputs: {
          tested: endpoints.filter((e) => (e.testedAt ?? 0) >= visit.startedAt).length,
          of: endpoints.length
        }
      },
      last: last ?? null
    }
  }

  /** What a record was made with; null: its files are not there. It never changes, and is asked for again and again. */
  private async partiesOf(site: string, number: number): Promise<HandoverView['last']> {
    const key = `${site} ${number}`
    const known = this.parties.get(key)
    if (known) return known
    const kept = await readKept(this.sources.folder, site, number).catch(() => null)
    if (!kept) return null
    const { client, installer, note } = kept
    this.parties.set(key, { client, installer, note })
    return { client, installer, note }
  }

  /**
   * Begins to make a record.
   *
   * @param at when it is made, by itself; left out: now
   * @throws ApiError when one is being made already
   */
  start(site: string, asked: MakeRecord, author: Author, at?: number): JobView {
    if (this.jobs.get(site)?.view.state === 'running') throw conflict(said('handover.beingMade'))
    const view: JobView = {
      kind: asked.service ? 'service' : 'handover',
      state: 'running',
      step: 'devices',
      done: 0,
      of: 0,
      number: null,
      error: null
    }
    const stop = new AbortController()
    const work = async (): Promise<void> => {
      try {
        const { number } = await makeRecord(this.sources, site, asked, author, {
          signal: stop.signal,
          step: (step, done, of) => Object.assign(view, { step, done, of }),
          ...(at !== undefined && { at })
        })
        Object.assign(view, { state: 'made', number })
      } catch (error) {
        Object.assign(view, { state: 'failed', error: saidOfError(error) })
        if (!stop.signal.aborted) this.log(error)
      }
    }
    this.jobs.set(site, { view, stop, ended: work() })
    return view
  }

  /** @throws ApiError when none is being made */
  async stop(site: string): Promise<void> {
    const job = this.jobs.get(site)
    if (job?.view.state !== 'running') throw conflict(said('handover.notBeingMade'))
    job.stop.abort()
    await job.ended
  }

  /** The pages, with who has signed. @throws ApiError when its files are not there */
  async pages(site: string, number: number): Promise<Buffer> {
    await readRecord(this.sources.database, site, number)
    await this.writing.get(`${site} ${number}`)
    try {
      return await readFile(join(folderOf(this.sources.folder, site, number), PAGES))
    } catch {
      throw conflict(said('handover.filesAreMissing', number))
    }
  }

  async zip(site: string, number: number): Promise<Uint8Array> {
    const { signatures } = (await readRecord(this.sources.database, site, number)).view
    const record = await readKept(this.sources.folder, site, number)
    await this.writing.get(`${site} ${number}`)
    return zipOf(folderOf(this.sources.folder, site, number), record, signatures)
  }

  /** Signs a record under its digest. @param at when; left out: now @throws ApiError for another digest */
  async sign(
    site: string,
    number: number,
    signature: Omit<Signature, 'at'>,
    author: Author,
    at = Date.now()
  ): Promise<RecordView> {
    const { database, folder } = this.sources
    const {
      id,
      view: { digest, paper }
    } = await readRecord(database, site, number)
    if (signature.digest !== digest) throw conflict(said('handover.otherDigest', number))
    // What is kept must be what is signed.
    await readKept(folder, site, number)
    await insertSignature(database, id, { ...signature, at }, author)
    const { view: record } = await readRecord(database, site, number)
    const key = `${site} ${number}`
    const work = (this.writing.get(key) ?? Promise.resolve())
      .catch(() => {})
      .then(async () =>
        writePages({
          folder: folderOf(folder, site, number),
          paper,
          signatures: (await readRecord(database, site, number)).view.signatures
        })
      )
    this.writing.set(key, work)
    try {
      await work
    } finally {
      if (this.writing.get(key) === work) this.writing.delete(key)
    }
    return record
  }

  /** What is not as it was when a record was made. */
  async changes(site: string, number: number): Promise<ChangesView> {
    await readRecord(this.sources.database, site, number)
    const before = await readKept(this.sources.folder, site, number)
    const now = await readState(this.sources, site, Date.now())
    return { number, madeAt: before.madeAt, changes: changesSince(before, now) }
  }

  /** @throws ApiError when the issue is not there any more */
  async accept(
    site: string,
    key: string,
    reason: string,
    { by, byId }: Author,
    now: number
  ): Promise<void> {
    const { findings } = await this.sources.readiness.read(site)
    const finding = findings.find((f) => findingKey(f) === key)
    if (!finding) throw notFound(said('things.thing', key.slice(0, 64)))
    await acceptIssue(
      this.sources.database,
      site,
      { key, sentence: wordsOf(finding.sentence), reason, by, at: now },
      byId
    )
  }

  /** Begins a service visit, compared with a record. */
  async startVisit(site: string, number: number, author: Author, now: number): Promise<void> {
    const { id } = await readRecord(this.sources.database, site, number)
    await startVisit(this.sources.database, site, id, author, now)
  }
}
