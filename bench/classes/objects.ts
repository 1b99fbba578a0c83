import type { TargetClass } from '../../core/targets/classes.ts'

const stamps = (folder: string, names: string): string[] =>
  names.split(' ').map((name) => `${folder}/${name}.png`)

/**
 * Photographs of single things, cut out, of Debian's `tuxpaint-stamps-default`; what they show was looked at. All of
 * them that show an animal or a vehicle which a camera may see, birds and beasts of zoos among them; what is drawn is
 * left out, and so are fish and insects. It has no cycles but drawn ones.
 */
export const CUT_OUT: Readonly<Partial<Record<TargetClass, readonly string[]>>> = {
  animal: [
    ...stamps(
      'animals/birds',
      'blackbird chicken_profile crow cuckoo drake duck gander guineafowl hen heron_greatblue lark magpie ostrich owl ' +
        'peacock pelican pigeon pink_flamingo rooster seagull silver-gull turkey vulture'
    ),
    ...stamps(
      'animals/mammals/bovines',
      'bison bull cow cow_white goat gnu-stand mountaingoat ram sheep sheep_lamb yak zebu'
    ),
    ...stamps('animals/mammals/cats', 'lion lion-2 tiger tiger_sumatran'),
    ...stamps('animals/mammals/deer', 'caribou deer doe wapiti'),
    ...stamps('animals/mammals/dogs', 'dingo dog fox'),
    ...stamps('animals/mammals/equines', 'donkey donkey_eating horse zebra'),
    ...stamps('animals/mammals/bears', 'bear european-bear'),
    ...stamps('animals/mammals', 'badger elephant giraffe pig wildboar')
  ],
  vehicle: [
    ...stamps('vehicles/auto', 'beetle sedan sportscar2 truck'),
    ...stamps('vehicles/emergency', 'firetruck sedan_police'),
    ...stamps('vehicles/construction', 'dumper'),
    ...stamps('vehicles', 'garbagetruck wheel_tractor'),
    ...stamps('vehicles/masstransit', 'green_korean_bus')
  ],
  person: stamps('people', 'fireman200b fireman240a')
}

/** Photographs of scenes, and how many people are in them, counted by eye: of Debian's `opencv-doc`. */
export const SCENES: readonly [file: string, people: number][] = [
  ['basketball1.png', 2],
  ['basketball2.png', 2]
]
/** And of the package `@vladmandic/face-api`: people of several skin tones, in groups, indoors. */
export const GROUPS: readonly [file: string, people: number][] = [
  ['sample1.jpg', 3],
  ['sample2.jpg', 3],
  ['sample3.jpg', 3],
  ['sample4.jpg', 4],
  ['sample5.jpg', 5],
  ['sample6.jpg', 4]
]
