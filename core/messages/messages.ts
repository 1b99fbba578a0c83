import { language } from './language.ts'

/** A text, or what makes one of values. */
export type Message = string | ((...values: never[]) => string)
export type Messages = { readonly [name: string]: Message | Messages }

const OPEN = '⟦'
const CLOSE = '⟧'

/** A text as the pseudo-language shows it; one that is made of others is marked once. */
export const marked = (text: string): string =>
  `${OPEN}${text.replaceAll(OPEN, '').replaceAll(CLOSE, '')}${CLOSE}`

function pseudo(messages: Messages): Messages {
  return Object.fromEntries(
    Object.entries(messages).map(([name, message]) => [
      name,
      typeof message === 'string'
        ? marked(message)
        : typeof message === 'function'
          ? (...values: never[]) => marked(message(...values))
          : pseudo(message)
    ])
  )
}

/**
 * Texts that people read. All of them are made here, in `core/messages/`; whatever else there is holds codes and
 * values. A name that is missing does not compile.
 */
export const messages = <M extends Messages>(texts: M): M =>
  language === 'pseudo' ? (pseudo(texts) as M) : texts
