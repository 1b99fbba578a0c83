import { keep, kept } from '../kept.ts'

const KEY = 'wardoptic-site'

/** The site that was shown last in this browser; null: none, or it keeps nothing. */
export const lastSite = (): string | null => kept(KEY)

export const rememberSite = (id: string): void => keep(KEY, id)
