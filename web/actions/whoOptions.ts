import type { SiteState } from '../sync/siteDocument.ts'

/** People and groups to choose from. */
export const whoOptions = ({
  people
}: Pick<SiteState, 'people'>): { value: string; label: string }[] => [
  ...people.groups.map((g) => ({ value: g.id, label: `${g.name} (${g.members.length})` })),
  ...people.people.map((p) => ({ value: p.id, label: p.name }))
]
