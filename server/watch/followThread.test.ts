import { once } from 'node:events'
import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Worker } from 'node:worker_threads'
import { expect, test } from '@jest/globals'
import type { FromFollower, ToFollower } from './follower.ts'

/** The nice value of each thread of this process, the 19th field of its `stat`. Source: proc_pid_stat(5), from memory. */
const niceValues = (): Map<string, number> =>
  new Map(
    readdirSync('/proc/self/task').map((thread) => {
      const stat = readFileSync(`/proc/self/task/${thread}/stat`, 'utf8')
      return [thread, Number(stat.slice(stat.lastIndexOf(')') + 2).split(' ')[16])] as const
    })
  )

test('the thread that follows yields to the others of its process, and answers', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'wardoptic-follow-'))
  const before = niceValues()
  const thread = new Worker(new URL('./followThread.mjs', import.meta.url), {
    workerData: { folder }
  })
  thread.postMessage({
    type: 'between',
    id: 1,
    camera: 'slipway',
    from: 0,
    to: 1
  } satisfies ToFollower)
  const [answer] = (await once(thread, 'message')) as [FromFollower]
  const after = niceValues()
  await thread.terminate()
  rmSync(folder, { recursive: true })
  expect(answer).toEqual({ type: 'rows', id: 1, rows: [] })
  const usual = before.get(String(process.pid))!
  for (const known of before.keys()) expect(after.get(known) ?? usual).toBe(usual)
  expect([...after.values()].filter((nice) => nice !== usual)).toEqual([usual + 5])
})
