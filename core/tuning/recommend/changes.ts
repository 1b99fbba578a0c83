import type { Detection } from '../../formats/plan.ts'
import { sizeLimits } from '../../kinds/sizeLimits.ts'
import { said, type Said } from '../../messages/said.ts'
import type { Recommendation } from './recommend.ts'

const SECONDS = [
  ['dwellSeconds', 'dwell'],
  ['graceSeconds', 'grace'],
  ['confirmSeconds', 'confirm'],
  ['holdOffSeconds', 'holdOff']
] as const

/**
 * What a recommendation changes, setting by setting, in the words of the other proposals.
 *
 * @param ignored how many ignore areas the camera has now
 */
export function changesOf(
  detection: Detection,
  { settings, ignore }: Pick<Recommendation, 'settings' | 'ignore'>,
  ignored: number
): Said[] {
  const [from, to] = [detection, settings] as unknown as Record<string, unknown>[]
  const changes: Said[] = []
  if (typeof to!.sensitivity === 'number')
    changes.push(
      said(
        'tuning.change',
        said('settings.sensitivity'),
        said('values.number', Number(from!.sensitivity)),
        said('values.number', to!.sensitivity)
      )
    )
  for (const [field, name] of SECONDS)
    if (typeof to![field] === 'number')
      changes.push(
        said(
          'tuning.change',
          said(`settings.${name}`),
          said('values.seconds', Number(from![field])),
          said('values.seconds', to![field])
        )
      )
  if ('classes' in settings && settings.classes)
    changes.push(
      settings.classes.length
        ? said(
            'tuning.onlyClasses',
            settings.classes.map((cls) => said(`classes.${cls}`))
          )
        : said('tuning.everyClass')
    )
  if ('size' in settings)
    changes.push(
      said(
        'tuning.newLimit',
        said('settings.size'),
        settings.size ? said('why.all', sizeLimits(settings.size)) : said('why.anySize')
      )
    )
  if ('line' in settings || 'zone' in settings) changes.push(said('tuning.shapeMoved'))
  if (ignore.length > ignored) changes.push(said('tuning.moreIgnored', ignore.length - ignored))
  return changes
}
