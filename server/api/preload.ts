import { readFileSync } from 'node:fs'
import { join } from 'node:path'

/** Vite's list of the built files, by source. */
type Manifest = Record<string, { file: string; imports?: string[]; css?: string[] }>

const BENCH = 'bench/BenchPlace.tsx'
const SITE = /^\/s\/([\w-]+)(\/bench(?=\/|$))?/

/**
 * What a page will ask for as soon as its own script runs, as links that fetch it meanwhile: who is signed in, the site,
 * and, where the Bench is opened, the Bench's code. A camera is not among it: what the page before still had to send is
 * waited for.
 * @param folder of the built interface
 * @param page its page: what that one names already is left out
 * @returns the links for an address without its query
 */
export function preloads(folder: string, page: string): (path: string) => string {
  const manifest = JSON.parse(readFileSync(join(folder, 'manifest.json'), 'utf8')) as Manifest
  const bench = [...filesOf(manifest, BENCH)].filter((file) => !page.includes(file)).map(linkOf)
  return (path) => {
    const [found, site, onBench] = SITE.exec(path) ?? []
    if (!found) return ''
    const answers = ['/api/session', `/api/sites/${site}/site`].map(
      (href) => `<link rel="preload" as="fetch" crossorigin href="${href}">`
    )
    return [...answers, ...(onBench ? bench : [])].join('\n')
  }
}

/** The files of a module's code and of all it imports. */
function filesOf(manifest: Manifest, name: string, files = new Set<string>()): Set<string> {
  const { file, imports, css } = manifest[name]!
  if (files.has(file)) return files
  for (const one of [file, ...(css ?? [])]) files.add(one)
  imports?.forEach((other) => filesOf(manifest, other, files))
  return files
}

const linkOf = (file: string): string =>
  `<link rel="${file.endsWith('.css') ? 'preload" as="style' : 'modulepreload'}" crossorigin href="/${file}" nonce="__CSP_NONCE__">`
