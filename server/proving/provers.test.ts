import { mkdirSync, mkdtempSync, readFileSync, readdirSync, rmSync, utimesSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, test } from '@jest/globals'
import { NO_ACTIONS } from '../../core/formats/noActions.ts'
import { DetectionSchema } from '../../core/formats/plan.ts'
import { eventually } from '../testing/testApp.ts'
import type { Job } from './prover.ts'
import { Provers } from './provers.ts'
import { parseWith } from '../../core/schema/parse.ts'

let folder: string
let provers: Provers
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'wardoptic-provers-'))
  provers = new Provers(folder)
})
afterAll(async () => {
  await provers.close()
  rmSync(folder, { recursive: true, force: true })
})

/** What a contact input asks for is proposed at once. */
const job = (id: string): Job => ({
  what: 'propose',
  ask: {
    detection: parseWith(DetectionSchema, { id, name: 'Door', kind: 'contact', input: 'door' }),
    ignore: [],
    actions: NO_ACTIONS,
    endpoints: [],
    site: { timeZone: 'UTC', position: undefined, schedules: [] },
    from: 0
  },
  ground: null,
  inputs: { door: 'Door' }
})

/**
 * Processes that this one has started and that still run. Source: proc(5), stat: the state is field
 * 3, the parent field 4.
 */
const children = (): number[] =>
  readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name))
    .flatMap((pid) => {
      try {
        const [state, parent] = readFileSync(`/proc/${pid}/stat`, 'utf8')
          .replace(/^.*\) /s, '')
          .split(' ')
        return Number(parent) === process.pid &&
          state !== 'Z' &&
          readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes(folder)
          ? [Number(pid)]
          : []
      } catch {
        return []
      }
    })

test('a process that dies takes only its own work with it; none is left at the end', async () => {
  expect(await provers.ask(job('one'))).toMatchObject({
    checks: expect.any(Array),
    gaps: expect.any(Array)
  })
  const before = children()
  expect(before).toHaveLength(1)
  // Held, so that it has not answered before it dies.
  process.kill(before[0]!, 'SIGSTOP')
  const asked = provers.ask(job('two'))
  const failed = expect(asked).rejects.toThrowWords('a proving process ended with SIGKILL')
  process.kill(before[0]!, 'SIGKILL')
  await failed
  await eventually(async () => !children().includes(before[0]!))
  const answers = await Promise.all(['three', 'four', 'five'].map((id) => provers.ask(job(id))))
  expect(answers).toHaveLength(3)
  await provers.close()
  expect(children()).toEqual([])
  await expect(provers.ask(job('six'))).rejects.toThrowWords('the server is closing')
})

test('removes cached results of painted pictures that were unused for long', async () => {
  for (const name of ['old', 'new']) mkdirSync(join(folder, name, 'inside'), { recursive: true })
  const past = Date.now() / 1000 - 61 * 86400
  utimesSync(join(folder, 'old'), past, past)
  await provers.forget(60)
  expect(readdirSync(folder)).toEqual(['new'])
})
