import { said } from '../messages/said.ts'
import { BREEZE, LIGHT_SNOW } from '../formats/weather.ts'
import type { Draft } from './drafts.ts'
import { silence, storm } from './pictures.ts'
import type { Ways } from './shapeWays.ts'
import { actor, groundOf, plainWalk, type Way } from './stage.ts'
import type { Walks } from './walks.ts'

/** Before a walk in weather the picture is learned for so long. */
const LEARN = 2.5
/** In painted pictures every second is looked at in full. */
const BRISK = 1.6

/** A way that begins and ends farther off: who is found in pictures must have been seen for a while. */
function fromAfar(way: Way): Way {
  const farther = (end: Way[number], next: Way[number]): Way[number] => {
    const length = Math.hypot(end[0] - next[0], end[1] - next[1])
    const by = Math.min(
      2,
      end[1] < next[1]
        ? Math.max(0, ((end[1] - 1.5) * length) / Math.max(0.01, next[1] - end[1]))
        : 2
    )
    return length > 0
      ? [end[0] + ((end[0] - next[0]) * by) / length, end[1] + ((end[1] - next[1]) * by) / length]
      : end
  }
  return [
    farther(way[0]!, way[1]!),
    ...way.slice(1, -1),
    farther(way[way.length - 1]!, way[way.length - 2]!)
  ]
}

/** The same walk in weather and at night, looked at through painted pictures; and weather without anybody. */
export function weathers(at: Walks, main: Ways['counts'][number], drafts: Draft[]): void {
  const walk = at.walk(fromAfar(main.way), {
    from: LEARN,
    ...(at.who === 'adult' && { speed: BRISK })
  })
  const at0 = at.moment(walk, main.direction) ?? 0
  // What is found in pictures is found somewhat later, and not to the frame.
  const expect: Draft['expect'] = {
    what: 'trigger',
    from: Math.max(0, at0 - 1.5),
    to: Math.min(walk.seconds, at0 + at.d.confirmSeconds + 3),
    ...(main.direction && { direction: main.direction })
  }
  drafts.push({
    through: 'pictures',
    key: 'weather.rain',
    name: said('checkNames.inRain'),
    about: 'passes',
    side: 'inside',
    walk: storm(walk.seconds, walk.actors),
    expect
  })
  drafts.push({
    through: 'pictures',
    key: 'weather.snow',
    name: said('checkNames.inSnow'),
    about: 'passes',
    side: 'inside',
    walk: { ...walk, weather: LIGHT_SNOW },
    expect
  })
  drafts.push({
    through: 'pictures',
    key: 'weather.night',
    name: said('checkNames.atNight'),
    about: 'passes',
    side: 'inside',
    walk: { ...walk, light: 'infrared' },
    keepLight: true,
    expect
  })
  drafts.push({
    through: 'pictures',
    key: 'nuisance.storm',
    name: said('checkNames.stormEmpty'),
    about: 'nuisance',
    side: 'outside',
    walk: storm(9),
    expect: silence
  })
  const gull = groundOf(at.stage.pose, 0.5, 0.6)
  if (gull)
    drafts.push({
      through: 'pictures',
      key: 'nuisance.gull',
      name: said('checkNames.gull'),
      about: 'nuisance',
      side: 'outside',
      walk: {
        ...plainWalk(10, [
          {
            ...actor('gull', [], { from: LEARN }),
            way: [
              [gull[0] - 6, gull[1], 0, 1.6],
              [gull[0] + 6, gull[1], 0, 2.2]
            ]
          }
        ]),
        weather: BREEZE
      },
      expect: silence
    })
}
