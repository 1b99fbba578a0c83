import type { Page, Response } from '@playwright/test'

/**
 * Reads pages in the pseudo-language (`?language=pseudo`), which puts every text of core/messages between ⟦ and ⟧, and
 * finds the letters outside. What people named themselves comes from the server as it is, and is no text of the product.
 */
export class Unmarked {
  private readonly page: Page
  private readonly named = new Set<string>()
  private readonly reading = new Set<Promise<void>>()
  /** What was found, with where, once each. */
  readonly found = new Map<string, string>()

  /** @param names that stand on screens and come from no answer */
  constructor(page: Page, names: readonly string[] = []) {
    this.page = page
    for (const name of names) this.named.add(name)
    page.on('response', (response) => {
      const read = this.read(response).finally(() => this.reading.delete(read))
      this.reading.add(read)
    })
  }

  private async read(response: Response): Promise<void> {
    if (!/\/api\//.test(response.url())) return
    if (!response.headers()['content-type']?.includes('json')) return
    // An answer may have gone with its page.
    const body: unknown = await response.json().catch(() => null)
    this.collect(body)
  }

  private collect(value: unknown): void {
    if (typeof value === 'string') {
      // A single word in small letters is more likely a code that should have had words.
      if (!/^[a-z]+([A-Z][a-z]+)*$/.test(value)) this.named.add(value)
      // The last part of what a device calls its own things.
      const own = /^\w+:(\w+)$/.exec(value)?.[1]
      if (own) this.named.add(own)
    } else if (Array.isArray(value)) value.forEach((v) => this.collect(v))
    else if (typeof value === 'object' && value !== null)
      Object.values(value).forEach((v) => this.collect(v))
  }

  /** Looks at what is shown now. @param where for the report */
  async look(where: string): Promise<void> {
    const texts = await this.page.evaluate(unmarkedTexts)
    // What is shown has been answered by now, if not read here yet.
    await Promise.all(this.reading)
    const names = [...this.named].sort((a, b) => b.length - a.length)
    for (const text of texts) {
      let left = text
      for (const name of names) if (name && left.includes(name)) left = left.replaceAll(name, ' ')
      // Letters of lanes and keys stay: A, B.
      if (/\p{L}/u.test(left.replace(/\b[A-Z]\b/g, '')) && !this.found.has(text))
        this.found.set(text, where)
    }
  }
}

/** In the page: texts, and texts of attributes, with letters that stand in no ⟦…⟧. */
function unmarkedTexts(): string[] {
  const outside = (text: string, depth: number): [string, number] => {
    let left = ''
    for (const c of text) {
      if (c === '⟦') depth++
      else if (c === '⟧') depth = Math.max(0, depth - 1)
      else if (depth === 0) left += c
    }
    return [left, depth]
  }
  const blockOf = (element: Element): Element => {
    let at = element
    while (at.parentElement && getComputedStyle(at).display.startsWith('inline'))
      at = at.parentElement
    return at
  }
  const found: string[] = []
  const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT)
  let block: Element | null = null
  let depth = 0
  for (let node = walker.nextNode(); node; node = walker.nextNode()) {
    const parent = node.parentElement!
    if (parent.closest('script, style, kbd')) continue
    const own = blockOf(parent)
    if (own !== block) [block, depth] = [own, 0]
    const [left, now] = outside(node.textContent ?? '', depth)
    depth = now
    if (/\p{L}/u.test(left)) found.push(left.trim())
  }
  for (const name of ['aria-label', 'title', 'placeholder', 'alt', 'aria-valuetext'])
    for (const element of document.querySelectorAll(`[${name}]`)) {
      if (element.closest('[aria-hidden="true"]')) continue
      const [left] = outside(element.getAttribute(name)!, 0)
      if (/\p{L}/u.test(left)) found.push(left.trim())
    }
  return found
}
