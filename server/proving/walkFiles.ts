import { mkdir, readFile, readdir, rename, rm, stat, utimes, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import type { ClipEvidence } from '../../core/detections/index.ts'
import { readFaces, writeFaces } from '../../core/formats/faces.ts'
import { readMot, writeMot } from '../../core/formats/mot.ts'
import { readMeasures, writeMeasures } from '../../core/measures/measures.ts'
import type { Play } from '../../simulation/script.ts'

/** What painted pictures gave, in files: each walk a folder of its targets, faces and measures. */

/** Removes what no walk has asked for since then, and what was left unfinished. @param before an instant, ms */
export async function forgetWalks(folder: string, before: number): Promise<void> {
  const names = await readdir(folder).catch(() => [])
  for (const name of names)
    if ((await stat(join(folder, name))).mtimeMs < before)
      await rm(join(folder, name), { recursive: true, force: true })
}

/** What is kept there of a play; null: nothing. */
export async function readWalk({ scene }: Play, home: string): Promise<ClipEvidence | null> {
  try {
    await utimes(home, new Date(), new Date())
    const [tracks, faces, measures] = await Promise.all([
      readFile(join(home, 'tracks.csv'), 'utf8'),
      readFile(join(home, 'faces.csv'), 'utf8'),
      readFile(join(home, 'measures.bin'))
    ])
    return {
      tracks: { ...readMot(tracks, scene.fps, scene), faces: readFaces(faces, scene) },
      measures: readMeasures(measures)
    }
  } catch {
    return null
  }
}

export async function keepWalk(
  { scene }: Play,
  { tracks, measures }: ClipEvidence,
  home: string
): Promise<void> {
  const part = `${home}.${process.pid}.${Math.random().toString(36).slice(2)}`
  await mkdir(part, { recursive: true })
  await Promise.all([
    writeFile(join(part, 'tracks.csv'), writeMot(tracks, scene)),
    writeFile(join(part, 'faces.csv'), writeFaces(tracks.faces ?? new Map(), scene)),
    writeFile(join(part, 'measures.bin'), writeMeasures(measures))
  ])
  // Another process may have been quicker; what it made is the same.
  await rename(part, home).catch(() => rm(part, { recursive: true, force: true }))
}
