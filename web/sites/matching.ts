import type { SiteSummary } from '../../core/sites/views.ts'

/** The sites whose names have all the words of a text, in any order, accents and capitals left aside. */
export function matching(sites: readonly SiteSummary[], text: string): SiteSummary[] {
  const plain = (s: string): string => s.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase()
  const words = plain(text).split(/\s+/).filter(Boolean)
  return sites.filter(({ name }) => words.every((word) => plain(name).includes(word)))
}
