import { afterAll, beforeAll, expect, test } from '@jest/globals'
import { ClockWatch } from '../clock.ts'
import { Database, type DatabaseAddress } from '../database.ts'

let database: Database
beforeAll(async () => {
  database = await Database.open(
    JSON.parse(process.env.WARDOPTIC_TEST_DATABASE!) as DatabaseAddress,
    `wardoptic_clock_${process.pid}`
  )
})
afterAll(() => database.close())

test('reports a clock set back, and postpones nothing for longer', async () => {
  let [wall, steady] = [1_000_000_000, 0]
  const pass = (ms: number): void => {
    wall += ms
    steady += ms
  }
  const said: string[] = []
  const watch = new ClockWatch(database, (words) => void said.push(words), {
    wall: () => wall,
    steady: () => steady
  })
  const put = (state: string, inMs: number) =>
    database.run(
      "INSERT INTO delivery (kind, recipient, state, next_at, endpoint_id, endpoint, created_at) VALUES ('webhook', 'x', ?, ?, 'e', '{}', 0)",
      [state, wall + inMs]
    )
  await put('pending', 8000)
  await put('failed', 0)
  pass(1000)
  await watch.look()
  expect(said).toEqual([])
  // Two hours back; then a second goes by, as always.
  wall -= 7_200_000
  pass(1000)
  await watch.look()
  expect(said).toEqual([
    'The machine’s clock was set back by 7200 s. Triggers and alarms use the new time.'
  ])
  const [pending, failed] = await database.rows<{ next_at: number }>(
    'SELECT next_at FROM delivery ORDER BY id'
  )
  expect(pending!.next_at - wall).toBe(6000)
  expect(failed!.next_at).toBe(1_000_000_000)
  wall += 3_600_000
  await watch.look()
  expect(said[1]).toContain('set forward by 3600 s')
  expect(
    (await database.rows<{ next_at: number }>('SELECT next_at FROM delivery ORDER BY id'))[0]!
      .next_at
  ).toBe(pending!.next_at)
})
