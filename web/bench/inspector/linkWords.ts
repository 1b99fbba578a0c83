import type { SavedEndpoint } from '../../../core/api.ts'
import { list } from '../../../core/messages/format.ts'
import { actionsEditor as msg } from '../../../core/messages/en/bench/inspector.ts'

/** The actions that are linked, by name; null: none. */
export function linkWords(
  links: readonly string[],
  endpoints: readonly SavedEndpoint[]
): string | null {
  const names = links.flatMap(
    (link) => endpoints.find(({ endpoint }) => endpoint.id === link)?.endpoint.name ?? []
  )
  if (!names.length) return null
  return names.length > 3
    ? msg.andMore(names.slice(0, 2).join(', '), names.length - 2)
    : list(names)
}
