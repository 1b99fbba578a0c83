import { createHash } from 'node:crypto'
import { existsSync, readFileSync, renameSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { deserialize, serialize } from 'node:v8'
import type { Analysis } from '../../analysis/analyse.ts'
import { analyseInWorker } from '../../analysis/inWorker.ts'

/**
 * `analyseInWorker`, once a clip and run of the tests: many of them need a clip with its targets, and it is not the
 * analysis that they test. Kept in a folder of the run by what the clip holds, so none is of an earlier program.
 */
export const keptAnalysis: typeof analyseInWorker = async (file, options = {}) => {
  const folder = process.env.WARDOPTIC_TEST_ANALYSES
  // Other programs than tests start the server of tests as well.
  if (folder === undefined) return analyseInWorker(file, options)
  const { grid, learnAnewAt, detector, onProgress } = options
  const digest = createHash('sha256')
    .update(JSON.stringify([grid, learnAnewAt, detector]))
    .update(readFileSync(file))
    .digest('hex')
  const kept = join(folder, digest)
  if (existsSync(kept)) {
    const analysis = deserialize(readFileSync(kept)) as Analysis
    onProgress?.(analysis.frames, analysis.frames)
    return analysis
  }
  const analysis = await analyseInWorker(file, options)
  if (analysis.withoutDetector !== null) return analysis
  // Two files of tests may come to it at once.
  const part = `${kept}.${process.pid}`
  writeFileSync(part, serialize(analysis))
  renameSync(part, kept)
  return analysis
}
