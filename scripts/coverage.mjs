// The lines that unit and server tests run, by folder. Read from what Jest writes with V8's own
// counts; threads and processes that a test starts are not counted. Shown, never a gate.
import { readFileSync } from 'node:fs'
import { dirname, relative } from 'node:path'
import { root } from './install.mjs'

/** @returns {string} a table: a row for each folder and the one inside, with the share of its lines */
export function coverageTable(file) {
  const { total, ...files } = JSON.parse(readFileSync(file, 'utf8'))
  const folders = new Map()
  for (const [path, { lines }] of Object.entries(files)) {
    const folder = dirname(relative(root, path)).split('/').slice(0, 2).join('/')
    const sum = folders.get(folder) ?? { total: 0, covered: 0 }
    folders.set(folder, { total: sum.total + lines.total, covered: sum.covered + lines.covered })
  }
  const row = (name, { total: all, covered }) =>
    `${name.padEnd(24)} ${String(covered).padStart(6)} of ${String(all).padStart(6)} lines ${((100 * covered) / Math.max(1, all)).toFixed(0).padStart(4)} %`
  return [
    ...[...folders].sort(([a], [b]) => (a < b ? -1 : 1)).map(([name, sum]) => row(name, sum)),
    row('all that was loaded', total.lines)
  ].join('\n')
}
