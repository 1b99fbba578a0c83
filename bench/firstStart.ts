import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { DemoView } from '../core/demo/views.ts'
import { pause, startDemo } from './demoServer.ts'
import { say } from './say.ts'

/** The first start with the demo site, its past, and further starts: npm run bench -- --first-start. */
const PORT = 4794
const LOOK_MS = 100
/** The bundles are made by the first one. */
const STARTS = 3

export async function benchFirstStart(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'wardoptic-first-'))
  try {
    const first = await startDemo(folder, PORT, true)
    say('first start, packages at hand', `${first.after.toFixed(1)} s`)
    const began = performance.now()
    const since = (): string => `${((performance.now() - began) / 1000).toFixed(1)} s`
    let step: string | undefined
    for (;;) {
      const { filling } = await first.ask<DemoView>('GET', '/api/sites/skerrow/demo')
      if (step && filling?.step !== step) say(`demo site: ${step} done after`, since())
      step = filling?.step
      if (!filling) break
      await pause(LOOK_MS)
    }
    await first.stop()
    for (let k = 0; k < STARTS; k++) {
      const second = await startDemo(folder, PORT, true)
      say('a further start', `${second.after.toFixed(1)} s`)
      await second.stop()
    }
  } finally {
    rmSync(folder, { recursive: true, force: true })
  }
}
