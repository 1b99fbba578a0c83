/**
 * The site that this window shows: the first part of its address, `/s/<site>/…`. Another site is another page, so that
 * nothing of one is ever taken for the other's.
 */
const SITE = /^\/s\/([^/]+)/

/** The id of the site that an address is of; null: of none. */
export function siteOf(path: string): string | null {
  const id = SITE.exec(path)?.[1]
  return id === undefined ? null : decodeURIComponent(id)
}

let shown = typeof location === 'undefined' ? null : siteOf(location.pathname)

/** The id of the site that is shown; null: none yet. */
export const here = (): string | null => shown

/** From an address of no site to a site. */
export function enterSite(id: string): void {
  shown = id
}

/** Where a site begins. */
export const homeOf = (site: string): string => `/s/${encodeURIComponent(site)}`

/** The server's address of something that belongs to the site shown. @param path such as `/alarms` */
export const atSite = (path: string): string =>
  `/api/sites/${encodeURIComponent(shown ?? '')}${path}`
