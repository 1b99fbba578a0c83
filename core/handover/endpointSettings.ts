import type { Endpoint } from '../formats/actions.ts'
import { fields } from '../messages/en/fields.ts'
import { endpointFields as msg } from '../messages/en/handover.ts'
import { phrases } from '../messages/en/actions/kinds.ts'
import { severities } from '../messages/en/codes/names.ts'
import { list, percent, settingSeconds } from '../messages/format.ts'
import type { SiteArchive } from '../sites/archive.ts'

type Names = Pick<SiteArchive, 'devices' | 'cameras' | 'people' | 'schedules' | 'voices'>

const nameIn = (things: readonly { id: string; name: string }[], id: unknown): string =>
  things.find((thing) => thing.id === id)?.name ?? String(id)

const fieldNames: Readonly<Record<string, string>> = { ...fields, ...msg.names }

function valueOf(key: string, value: unknown, names: Names): string {
  if (key === 'device') return nameIn(names.devices, value)
  if (key === 'camera') return nameIn(names.cameras, value)
  if (key === 'schedule') return nameIn(names.schedules, value)
  if (key === 'accepts') return severities[value as keyof typeof severities]
  if (key === 'people') {
    const who = [...names.people.people, ...names.people.groups]
    return list((value as string[]).map((id) => nameIn(who, id)))
  }
  if (key === 'voice') {
    const voice = value as { phrase: keyof typeof phrases } | { file: string }
    return 'phrase' in voice ? msg.phrase(phrases[voice.phrase]) : nameIn(names.voices, voice.file)
  }
  if (typeof value === 'boolean') return value ? msg.yes : msg.no
  if (Array.isArray(value)) return list(value.map(String))
  if (key === 'volume') return percent((value as number) / 100)
  if (key === 'seconds' || key.endsWith('Seconds')) return settingSeconds(value as number)
  const words = msg.values as Readonly<Record<string, string>>
  return words[String(value)] ?? String(value)
}

/** The settings of an output, a message or a recording in words, but for its name and its kind. */
export const endpointSettings = (
  endpoint: Endpoint,
  names: Names
): { setting: string; value: string }[] =>
  Object.entries(endpoint)
    .filter(
      ([key, value]) =>
        !['id', 'name', 'kind'].includes(key) &&
        value !== null &&
        !(Array.isArray(value) && value.length === 0)
    )
    .map(([key, value]) => ({
      setting: fieldNames[key] ?? key,
      value: valueOf(key, value, names)
    }))
