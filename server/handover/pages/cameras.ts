import { settingsShown } from '../../../core/history/states.ts'
import { sentenceOf, kindNames } from '../../../core/kinds/names.ts'
import { letterOf } from '../../../core/kinds/words.ts'
import { severityOf } from '../../../core/kinds/schemas.ts'
import { severities } from '../../../core/messages/en/codes/names.ts'
import { recordPages as msg } from '../../../core/messages/en/handover.ts'
import { capital } from '../../../core/messages/format.ts'
import { wordsOf } from '../../../core/messages/words.ts'
import { pixelDensity, project } from '../../../core/scene/camera.ts'
import type { Holding, SiteRecord } from '../../../core/handover/record.ts'
import type { PageContext } from './context.ts'
import { drawShapes } from './shapes.ts'
import { COLOURS, type Cell } from './sheet.ts'

/** What protects what: of each camera its picture with the shapes, and each detection with all its settings. */

type Camera = SiteRecord['site']['cameras'][number]
/** Metres from the camera at which the density is said. */
const DISTANCES = [5, 10, 15, 20, 30, 40, 60, 80]
const PERSON = 1.75

export function writeCameras(context: PageContext): void {
  const { sheet, record } = context
  sheet.chapter(msg.whatProtects, Infinity)
  record.site.cameras.forEach((camera, i) => {
    if (i) sheet.page()
    writeCamera(context, camera)
  })
}

function writeCamera(context: PageContext, camera: Camera): void {
  const { sheet, record, image, when } = context
  const own = record.cameras.find(({ id }) => id === camera.id)
  const detections = camera.detections.map(({ detection }) => detection)
  sheet.part(camera.name, 300)
  const aspect = own?.width && own.height ? own.width / own.height : 16 / 9
  if (own?.picture)
    sheet.picture(
      image(own.picture),
      aspect,
      msg.pictureAlt(
        camera.name,
        detections.map((d) => d.name)
      ),
      {
        caption: msg.picture(camera.name, own.picture.at === null ? null : when(own.picture.at)),
        draw: (x, y, width, height) =>
          drawShapes(sheet, detections, camera.ignore, { x, y, width, height })
      }
    )
  else sheet.text(msg.noPicture(own?.missing ?? ''), { colour: COLOURS.quiet })
  if (own?.night)
    sheet.picture(image(own.night), aspect, msg.nightPicture(camera.name, null), {
      most: 130,
      caption: msg.nightPicture(camera.name, own.night.at === null ? null : when(own.night.at))
    })
  if (own?.pose) writeDensity(context, own.pose, own.height ?? 0)
  if (!camera.detections.length) sheet.text(msg.noDetections, { colour: COLOURS.quiet })
  camera.detections.forEach((_, i) => writeDetection(context, camera, i))
}

function writeDensity(
  { sheet }: PageContext,
  pose: NonNullable<SiteRecord['cameras'][number]['pose']>,
  height: number
): void {
  const rows = DISTANCES.flatMap((z) => {
    const { y, perMetre } = project(pose, { x: 0, z })
    if (y < 0 || y > 1) return []
    const density = pixelDensity(pose, 0.5, y, height) ?? perMetre * height
    return [[msg.metres(z), msg.pixels(density), msg.pixels(density * PERSON)]]
  })
  sheet.text(msg.measured(pose.height, pose.tilt), { after: 4 })
  if (rows.length)
    sheet.table(
      [
        { title: msg.density, share: 1 },
        { title: msg.pixelsPerMetre, share: 1 },
        { title: msg.personTall, share: 1 }
      ],
      rows
    )
}

/** How the devices that show a camera hold one of its detections; the route that it is sent through first. */
function holdingsOf(
  { record }: PageContext,
  camera: string,
  detection: string
): { name: string; holding: Holding }[] {
  return record.devices.flatMap((d) =>
    d.channels
      .filter((c) => c.camera === camera && c.used)
      .flatMap((c) => {
        const holding = c.holdings.find((h) => h.detection === detection)
        return holding ? [{ name: d.name, holding }] : []
      })
  )
}

function deviceValue(holding: Holding | undefined, setting: string): Cell {
  if (!holding) return { text: msg.noDevice, colour: COLOURS.quiet }
  const own = isOneForAll(holding) ? null : holding.settings.find((s) => s.setting === setting)
  if (own)
    return own.device === null
      ? { text: msg.notHeld, colour: COLOURS.rust }
      : { text: own.device, colour: COLOURS.rust }
  switch (holding.state) {
    case 'same':
    case 'differs':
    case 'drifted':
      return msg.asPlanned
    case 'own':
      return { text: msg.ownWatch, colour: COLOURS.quiet }
    case 'unread':
      return { text: msg.notRead, colour: COLOURS.quiet }
    case 'unsupported':
      return { text: msg.notHeld, colour: COLOURS.rust }
    case 'missing':
    case 'off':
      return { text: msg.notSent, colour: holding.state === 'off' ? COLOURS.quiet : COLOURS.rust }
  }
}

/** The device says the same of all settings: once is enough. */
const isOneForAll = (holding: Holding | undefined): boolean =>
  !holding || !['same', 'differs', 'drifted'].includes(holding.state)

function writeDetection(context: PageContext, camera: Camera, index: number): void {
  const { sheet, record } = context
  const { detection: d, actions } = camera.detections[index]!
  const { schedules, inputs } = record.site
  const settings = settingsShown(d, schedules, inputs)
  // A detection stands on one page, where it fits on one.
  sheet.room(96 + 18 * settings.length)
  sheet.gap(4)
  sheet.subheading(`${letterOf(index)}  ${d.name} · ${kindNames[d.kind]}`, 90)
  sheet.text(sentenceOf(d, schedules, inputs), { after: 2 })
  sheet.text(
    [
      ...(d.enabled ? [] : [msg.disabled]),
      msg.ofAlarm(severities[severityOf(d, actions.severity)], actions.priority),
      ...(d.note ? [msg.note2(d.note.text, d.note.by ?? null)] : [])
    ].join(' '),
    { colour: COLOURS.quiet, size: 9, after: 4 }
  )
  const held = holdingsOf(context, camera.id, d.id)
  const names = held.length ? held.map(({ name }) => name) : [msg.device]
  const rows = settings.map(({ setting, value }, i): Cell[] => {
    const name = wordsOf(setting)
    const of = held.length ? held.map(({ holding }) => holding) : [undefined]
    return [
      capital(name),
      wordsOf(value),
      ...of.map((holding) => (i && isOneForAll(holding) ? '' : deviceValue(holding, name)))
    ]
  })
  // What the device holds otherwise, and the plan knows by no name of its own.
  const known = new Set(settings.map(({ setting }) => wordsOf(setting)))
  const more = [
    ...new Set(
      held.flatMap(({ holding }) =>
        isOneForAll(holding) ? [] : holding.settings.map((s) => s.setting)
      )
    )
  ]
    .filter((setting) => !known.has(setting))
    .map((setting): Cell[] => [
      capital(setting),
      held.flatMap(
        ({ holding }) => holding.settings.find((s) => s.setting === setting)?.plan ?? []
      )[0] ?? '',
      ...held.map(({ holding }) => deviceValue(holding, setting))
    ])
  sheet.table(
    [
      { title: msg.setting, share: 1.2 },
      { title: msg.plan, share: 1.5 },
      ...names.map((name) => ({ title: name, share: 1.3 }))
    ],
    [...rows, ...more]
  )
}
