import { wordsOf } from '../core/messages/words.ts'
import { said, type Said } from '../core/messages/said.ts'
import { createReadStream, readFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { NewAccountSchema, type NewAccount } from '../core/accounts/accounts.ts'
import type { SiteInput } from '../core/api.ts'
import { readPlan, type Plan } from '../core/formats/plan.ts'
import { readScene, readScript } from '../simulation/script.ts'
import type { Clips } from './clips/service.ts'
import type { Database } from './database.ts'
import { ActionsSchema, EndpointSchema, MailSchema, PeopleSchema } from '../core/formats/actions.ts'
import { saveEndpoint, saveSetting } from './actions/queries.ts'
import { saveActions, saveDetection } from './detections/queries.ts'
import type { Devices } from './devices/service.ts'
import { listDevices } from './devices/queries.ts'
import { noteEdit, type EditNote } from './history/queries.ts'
import { readSite, saveSchedule, siteIds } from './sites/queries.ts'
import type { Surroundings } from '../core/sites/surroundings.ts'
import { parseWith } from '../core/schema/parse.ts'

interface DemoSite {
  site: { id: string; name: string }
  plan: unknown
  /** Actions, by detection. */
  actions: Record<string, unknown>
  endpoints: unknown[]
  mail: unknown
  people: unknown
  usual: unknown
  inputs: SiteInput[]
  /** Of cameras that do not look outdoors. */
  surroundings: Record<string, Surroundings>
  /** Cameras with a simulated scene; each has a file of its name in demo/scenes. */
  scenes: string[]
  /** Each in demo/clips as <camera>-<script>.mp4, painted from that script. */
  clips: { camera: string; script: string; name: string; start: string }[]
}

/** The id of the demo site. */
export const DEMO_SITE = 'skerrow'

const demoFile = new URL('../demo/plan.json', import.meta.url)

/** Of this machine, until somebody says where the site is. */
const ownTimeZone = (): string => Intl.DateTimeFormat().resolvedOptions().timeZone || 'UTC'

/** The site as a plan describes it, in one transaction. */
async function insertSite(
  database: Database,
  { id, name }: { id: string; name: string },
  plan: Plan,
  {
    actions = {},
    endpoints = [],
    mail,
    people,
    usual,
    inputs = [],
    surroundings = {},
    worlds = {}
  }: Partial<
    Pick<
      DemoSite,
      'actions' | 'endpoints' | 'mail' | 'people' | 'usual' | 'inputs' | 'surroundings'
    >
  > & {
    worlds?: Record<string, unknown>
  } = {}
): Promise<void> {
  await database.transaction(async (sql) => {
    const now = Date.now()
    const asDelivered = (what: Said | string): EditNote => ({
      by: 'Wardoptic',
      byId: null,
      label: said('edits.delivered', what)
    })
    await sql.run(
      'INSERT INTO site (id, name, time_zone, latitude, longitude, inputs, added_at) VALUES (?, ?, ?, ?, ?, ?, ?)',
      [
        id,
        name,
        plan.timeZone,
        plan.position?.latitude ?? null,
        plan.position?.longitude ?? null,
        JSON.stringify(inputs),
        now
      ]
    )
    for (const schedule of plan.schedules)
      await saveSchedule(
        sql,
        id,
        schedule,
        0,
        asDelivered(said('edits.schedule', schedule.name)),
        now
      )
    for (const body of endpoints) {
      const endpoint = parseWith(EndpointSchema, body)
      await saveEndpoint(sql, id, endpoint, 0, asDelivered(endpoint.name), now)
    }
    if (mail)
      await saveSetting(
        sql,
        id,
        'mail',
        parseWith(MailSchema, mail),
        0,
        asDelivered(said('edits.theMailServer')),
        now
      )
    if (people)
      await saveSetting(
        sql,
        id,
        'people',
        parseWith(PeopleSchema, people),
        0,
        asDelivered(said('edits.thePeople')),
        now
      )
    if (usual)
      await saveSetting(
        sql,
        id,
        'usual',
        parseWith(ActionsSchema, usual),
        0,
        asDelivered(said('edits.theDefaultActions')),
        now
      )
    for (const [position, camera] of plan.cameras.entries()) {
      await sql.run(
        'INSERT INTO camera (id, site_id, name, position, surroundings, ignore_areas, world) VALUES (?, ?, ?, ?, ?, ?, ?)',
        [
          camera.id,
          id,
          camera.name,
          position,
          surroundings[camera.id] ?? null,
          JSON.stringify(camera.ignore),
          worlds[camera.id] ? JSON.stringify(worlds[camera.id]) : null
        ]
      )
      await noteEdit(
        sql,
        id,
        camera.id,
        'scene',
        camera.id,
        { ignore: camera.ignore, marks: null },
        asDelivered(said('edits.theScene')),
        now
      )
      for (const [at, detection] of camera.detections.entries()) {
        await saveDetection(sql, camera.id, detection, at, 0, asDelivered(detection.name), now)
        if (actions[detection.id])
          await saveActions(
            sql,
            camera.id,
            detection.id,
            parseWith(ActionsSchema, actions[detection.id]),
            0,
            asDelivered(said('edits.actionsOf', detection.name)),
            now
          )
      }
    }
  })
}

/**
 * On the first start: the demo site with its clips, or a site that its first installer sets up.
 *
 * @param cameras whose clips are added; left out: all
 * @returns whether it was the first start
 */
export async function seed(
  database: Database,
  clips: Clips,
  withDemo: boolean,
  cameras?: readonly string[]
): Promise<boolean> {
  if ((await database.rows('SELECT 1 FROM site LIMIT 1')).length) return false
  if (!withDemo) {
    const bare = readPlan(
      JSON.stringify({ format: 'wardoptic-plan/1', timeZone: ownTimeZone(), cameras: [] })
    )
    await insertSite(database, { id: 'site', name: wordsOf(said('server.newSite')) }, bare)
    await database.run('UPDATE site SET is_set_up = FALSE')
    return true
  }
  const demo = JSON.parse(readFileSync(demoFile, 'utf8')) as DemoSite
  const read = (path: string): unknown => JSON.parse(readFileSync(new URL(path, demoFile), 'utf8'))
  const worlds = Object.fromEntries(
    demo.scenes.map((camera) => [camera, read(`scenes/${camera}.json`)])
  )
  await insertSite(database, demo.site, readPlan(JSON.stringify(demo.plan)), { ...demo, worlds })
  for (const { camera, script, name, start } of demo.clips.filter(
    (clip) => cameras?.includes(clip.camera) ?? true
  )) {
    const world = worlds[camera] as World
    await addDemoClip(clips, world, { camera, script, name, start: Date.parse(start) })
  }
  return true
}

/** A camera's scene and scripts, as in demo/scenes. */
type World = { scene: unknown; scripts: readonly unknown[] }

/** Adds a clip of demo/clips to a camera. @param start ms of UTC */
export function addDemoClip(
  clips: Clips,
  { scene, scripts }: World,
  { camera, script, name, start }: { camera: string; script: string; name: string; start: number }
): Promise<void> {
  return clips.addPainted(
    camera,
    name,
    start,
    {
      scene: readScene(scene),
      script: readScript(scripts.find((s) => (s as { id: string }).id === script))
    },
    createReadStream(fileURLToPath(new URL(`clips/${camera}-${script}.mp4`, demoFile)))
  )
}

/** The demo site's accounts. */
export const demoAccounts = (): NewAccount[] =>
  (JSON.parse(readFileSync(demoFile, 'utf8')) as { accounts: unknown[] }).accounts.map((account) =>
    parseWith(NewAccountSchema, account)
  )

interface DemoDevice {
  id: string
  name: string
  channels: { camera: string }[]
  account?: { username: string; password: string }
  onSite?: boolean
}

/** The demo site's devices at the addresses where their simulators are now; those that were removed stay away. */
export async function seedDevices(
  database: Database,
  devices: Devices,
  addresses: Readonly<Record<string, string>>
): Promise<void> {
  const demo = (await siteIds(database)).includes(DEMO_SITE)
  const site = demo && (await readSite(database, DEMO_SITE))
  if (!site) return
  const known = await listDevices(database, site.id)
  // A folder that was begun without the demo site has none of its cameras.
  const models = (
    JSON.parse(readFileSync(new URL('devices.json', demoFile), 'utf8')) as DemoDevice[]
  ).filter(
    ({ channels, onSite }) =>
      onSite !== false && site.cameras.some((c) => c.id === channels[0]!.camera)
  )
  const moved = new Map<string, string>()
  for (const { id, channels, name, account } of models) {
    const address = addresses[id]
    if (address === undefined) continue
    if (known.some((d) => d.id === id)) moved.set(id, address)
    else if (known.length === 0)
      await devices.add(
        site.id,
        {
          name,
          address,
          camera: channels.length === 1 ? channels[0]!.camera : null,
          username: account?.username ?? null,
          password: account?.password ?? null
        },
        id
      )
  }
  await devices.move(moved)
}
