/**
 * The language that texts are shown in. English is the only one so far; `pseudo` marks every text that comes from
 * here, so that a test finds what does not.
 */
export type Language = 'en' | 'pseudo'

/**
 * What was asked for: in a browser by the address (`?language=pseudo`), elsewhere by the environment
 * (`WARDOPTIC_LANGUAGE=pseudo`). This is the one place of core that looks at either, because texts are read while
 * modules load, before anybody could say it.
 */
function asked(): string | null {
  const outside = globalThis as {
    location?: { search?: string }
    process?: { env?: Record<string, string | undefined> }
  }
  return (
    new URLSearchParams(outside.location?.search ?? '').get('language') ??
    outside.process?.env?.['WARDOPTIC_LANGUAGE'] ??
    null
  )
}

export const language: Language = asked() === 'pseudo' ? 'pseudo' : 'en'
