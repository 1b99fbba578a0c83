import { expect, test } from '@jest/globals'
import { startTestApp } from '../testApp.ts'
import { fuzz } from './fuzz.ts'

// `npm run fuzz` does the same with 100,000 inputs, or as many as one likes.
test('2000 malformed inputs: no server error and no missing answer', async () => {
  const t = await startTestApp({ withDemo: true, clipsOf: [] })
  try {
    const { inputs, statuses, problems } = await fuzz(t, 2000, 20261127)
    expect(problems).toEqual([])
    expect(inputs).toBeGreaterThanOrEqual(2000)
    // It has been answered and refused, not only turned away.
    expect(statuses[200]).toBeGreaterThan(100)
    expect(statuses[422]).toBeGreaterThan(100)
  } finally {
    await t.close()
  }
})
