import { readFileSync } from 'node:fs'
import { join } from 'node:path'

/** Vite's list of the built files, by source. */
type Manifest = Record<string, { file: string; imports?: string[]; css?: string[] }>

/** By the second part of an address what it shows. */
const PLACES = {
  site: 'site/SitePlace.tsx',
  devices: 'devices/DevicesPlace.tsx',
  arming: 'arming/ArmingPlace.tsx',
  actions: 'actions/ActionsPlace.tsx',
  bench: 'bench/BenchPlace.tsx',
  watch: 'watch/WatchPlace.tsx',
  handover: 'handover/HandoverPlace.tsx'
}
const SITE = /^\/s\/([\w-]+)(?:\/(\w+)(?=\/|$))?/
/** The letters that nearly all is written in. */
const FONT = /hyperlegible-next-latin-wght-normal\.woff2$/

/**
 * What a page will ask for as soon as its own script runs, as links that fetch it meanwhile: who is signed in, the site,
 * the letters, and the code of the place that is opened. A camera is not among it: what the page before still had to send
 * is waited for.
 * @param folder of the built interface
 * @param page its page: what that one names already is left out
 * @returns the links for an address without its query
 */
export function preloads(folder: string, page: string): (path: string) => string {
  const manifest = JSON.parse(readFileSync(join(folder, 'manifest.json'), 'utf8')) as Manifest
  const code = new Map(
    Object.entries(PLACES).map(([place, name]) => [
      place,
      [...filesOf(manifest, name)].filter((file) => !page.includes(file)).map(linkOf)
    ])
  )
  const font = Object.entries(manifest).find(([name]) => FONT.test(name))![1].file
  return (path) => {
    const [found, site, place = 'site'] = SITE.exec(path) ?? []
    if (!found) return ''
    const answers = ['/api/session', `/api/sites/${site}/site`].map(
      (href) => `<link rel="preload" as="fetch" crossorigin href="${href}">`
    )
    return [
      ...answers,
      `<link rel="preload" as="font" type="font/woff2" crossorigin href="/${font}">`,
      ...(code.get(place) ?? [])
    ].join('\n')
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
