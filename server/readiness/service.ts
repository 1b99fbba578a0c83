import { dequal } from 'dequal'
import type { ClipView } from '../../core/api.ts'
import { grouped } from '../../core/grouped.ts'
import type { Measures } from '../../core/measures/measures.ts'
import {
  readinessOf,
  type ClipFacts,
  type Facts,
  type ReadinessView
} from '../../core/readiness/index.ts'
import { SiteHours } from '../../core/arming/coverage.ts'
import { missingOf } from '../../core/formats/actions.ts'
import { readEndpoints, readSettings } from '../actions/queries.ts'
import type { Clips } from '../clips/service.ts'
import { readyClips } from '../clips/queries.ts'
import type { Database } from '../database.ts'
import type { Proving } from '../proving/service.ts'
import { readEverything, waitingOf } from '../devices/view.ts'
import { listDevices } from '../devices/queries.ts'
import { measureScene } from '../../core/scene/marks.ts'
import { isFull } from '../../core/devices/upkeep.ts'
import { listCameras, readMarks, readSiteAlone } from '../sites/queries.ts'

/** Findings look at the newest clips of a camera, and of each at so many rows at most: they are asked for often. */
const CLIPS_PER_CAMERA = 3
const MAX_ROWS = 60_000
/** The picture of the first seconds is taken as how it looks while nothing is wrong. */
const LOOK_SECONDS = 3

/** Computes what is still missing; the same question about the same state is answered from memory. */
export class Readiness {
  private readonly database: Database
  private readonly clips: Clips
  private readonly proving: Proving
  private readonly seen = new Map<string, Promise<ClipFacts | null>>()
  /** By site. */
  private readonly last = new Map<string, { state: unknown; view: ReadinessView }>()

  constructor(database: Database, clips: Clips, proving: Proving) {
    this.proving = proving
    this.database = database
    this.clips = clips
  }

  async read(siteId: string): Promise<ReadinessView> {
    // At one go: on a busy server each answer that has to come first is one more wait.
    const reading = readEverything(this.database, siteId)
    const [site, everything, proofs, siteCameras, endpoints, settings, devices, ready, marks] =
      await Promise.all([
        readSiteAlone(this.database, siteId),
        reading,
        this.proving.proofs(
          siteId,
          reading.then(({ detections }) => detections)
        ),
        listCameras(this.database, siteId),
        readEndpoints(this.database, siteId),
        readSettings(this.database, siteId),
        listDevices(this.database, siteId),
        readyClips(this.database, siteId),
        readMarks(this.database, siteId)
      ])
    const clips = grouped(ready, ({ camera }) => camera)
    const clipsOf = (camera: string): ClipView[] =>
      (clips.get(camera) ?? [])
        .sort((a, b) => b.start - a.start || a.id.localeCompare(b.id))
        .slice(0, CLIPS_PER_CAMERA)
    const wanted = siteCameras.map(({ id }) => clipsOf(id))
    const outputsWaiting = new Map(
      devices.map((row) => [
        row.id,
        row.outputs.filter((o) => waitingOf(row, o, everything).length).map((o) => o.name)
      ])
    )
    const states = devices.map(({ id, name, state, clockAhead, storage }) => ({
      id,
      name,
      state,
      clockAhead: clockAhead === null ? null : Math.round(clockAhead),
      outputsWaiting: outputsWaiting.get(id) ?? [],
      storage:
        storage?.map((s) => ({ place: s.place, whenFull: s.whenFull, full: isFull(s) })) ?? null
    }))
    const state = [
      proofs,
      siteCameras,
      everything.channels.map(({ readAt, ...rest }) => ({ ...rest, read: readAt !== null })),
      everything.detections,
      everything.schedules,
      everything.actions,
      endpoints,
      settings.mail.mail,
      settings.people,
      settings.usual,
      site.inputs,
      devices.map((d) => d.outputs.map((o) => o.token)),
      monday(Date.now()),
      states,
      marks,
      wanted.flat().map((clip) => keyOf(site.id, clip))
    ]
    const last = this.last.get(site.id)
    if (last && dequal(last.state, state)) return last.view
    this.forget(
      site.id,
      ready.map((clip) => keyOf(site.id, clip))
    )
    const cameras = await Promise.all(
      siteCameras.map(async ({ id, name }, i) => ({
        id,
        name,
        pose: marks.has(id) ? measureScene(marks.get(id)!).pose : null,
        detections: everything.detections.get(id) ?? [],
        actions: new Map(
          (everything.detections.get(id) ?? []).flatMap((d) =>
            everything.actions.get(`${id} ${d.id}`)
              ? [[d.id, everything.actions.get(`${id} ${d.id}`)!] as const]
              : []
          )
        ),
        channels: everything.channelsShowing.get(id) ?? [],
        proofs: new Map(
          (everything.detections.get(id) ?? []).flatMap((d) =>
            proofs.has(`${id} ${d.id}`) ? [[d.id, proofs.get(`${id} ${d.id}`)!] as const] : []
          )
        ),
        clips: (await Promise.all(wanted[i]!.map((clip) => this.facts(site.id, clip)))).filter(
          (clip) => clip !== null
        )
      }))
    )
    const several = [...everything.channelsOf.values()].filter((own) => own.length > 1).flat()
    const known = {
      mail: settings.mail.mail,
      people: settings.people.people,
      outputs: new Set(devices.flatMap((d) => d.outputs.map(({ token }) => `${d.id} ${token}`)))
    }
    const facts: Facts = {
      schedules: everything.schedules,
      devices: states,
      cameras,
      recorders: several,
      endpoints: endpoints.map(({ endpoint, testedAt, testError }) => ({
        endpoint,
        missing: missingOf(endpoint, known),
        tested: testedAt === null ? 'never' : testError === null ? 'passed' : 'failed'
      })),
      usual: settings.usual.actions,
      hours: new SiteHours(
        everything.schedules,
        site.timeZone,
        site.position ?? undefined,
        Date.now()
      ),
      inputs: site.inputs.map(({ id, name, device, token }) => ({
        id,
        name,
        known: devices.some((d) => d.id === device && d.inputs.includes(token ?? ''))
      }))
    }
    const view = readinessOf(facts)
    this.last.set(site.id, { state, view })
    return view
  }

  /** What is known of clips of a site that are not there any more. */
  private forget(site: string, ready: readonly string[]): void {
    for (const known of this.seen.keys())
      if (known.startsWith(`${site} `) && !ready.includes(known)) this.seen.delete(known)
  }

  private facts(site: string, clip: ClipView): Promise<ClipFacts | null> {
    const known = this.seen.get(keyOf(site, clip))
    if (known) return known
    const read = this.clips.readEvidence(clip).then(
      ({ tracks, measures }): ClipFacts => ({
        id: clip.id,
        name: clip.name,
        width: clip.width,
        height: clip.height,
        tracks: { ...tracks, length: Math.min(tracks.length, MAX_ROWS) },
        look: measures && lookOf(measures)
      }),
      // A clip that is just being removed is left out.
      () => null
    )
    this.seen.set(keyOf(site, clip), read)
    return read
  }
}

const keyOf = (site: string, clip: ClipView): string =>
  `${site} ${clip.id} ${clip.rows} ${clip.learnAnewAt.join()}`

function lookOf({ figures, length, fps }: Measures): ClipFacts['look'] {
  const n = Math.min(length, Math.round(LOOK_SECONDS * fps))
  if (!n) return null
  const mean = (values: Float32Array): number =>
    values.subarray(0, n).reduce((sum, v) => sum + v, 0) / n
  return { luma: mean(figures.luma), contrast: mean(figures.contrast) }
}

/** Hours are looked at from the Monday of the week: until the next one the answer is the same. */
const monday = (now: number): number => Math.floor((now / 86_400_000 + 3) / 7)
