import { afterAll, beforeAll, expect, test } from '@jest/globals'
import { startTestApp, type TestApp } from '../testing/testApp.ts'
import { readContext } from './context.ts'

let t: TestApp
beforeAll(async () => {
  t = await startTestApp({ withDemo: true, clipsOf: [] })
  await t.database.run(
    `INSERT INTO device (id, site_id, name, address, state, added_at, outputs) VALUES ('d', 'skerrow', 'Mast', 'http://192.0.2.7', 'unread', 0, '[{"token":"relay1"}]')`
  )
  await t.database.run(
    `INSERT INTO endpoint (site_id, id, body, version, changed_at) VALUES ('skerrow', 'zz', '{"id":"zz","name":"Relay","kind":"relay","device":"d","output":"relay1"}', 1, 0)`
  )
}, 600_000)
afterAll(() => t.close())

const now = () => readContext(t.database, 'skerrow')

test('is kept while nothing changes', async () => {
  expect(await now()).toBe(await now())
})

test.each<[string, string, (context: Awaited<ReturnType<typeof now>>) => unknown]>([
  [
    'a camera’s name',
    "UPDATE camera SET name = 'Other' WHERE id = 'slipway'",
    ({ names }) => names.get('slipway')
  ],
  [
    'a camera that is removed',
    "UPDATE camera SET removed = TRUE WHERE id = 'quay-path'",
    ({ names }) => names.has('quay-path')
  ],
  [
    'a device’s name',
    "UPDATE device SET name = 'Other' WHERE id = 'd'",
    ({ names }) => names.get('d')
  ],
  [
    'the outputs of devices',
    "UPDATE device SET outputs = '[]' WHERE id = 'd'",
    ({ actions }) => actions.outputs.has('d relay1')
  ],
  [
    'an endpoint',
    "UPDATE endpoint SET body = JSON_SET(body, '$.name', 'Other'), version = version + 1 WHERE site_id = 'skerrow' LIMIT 1",
    ({ actions }) => actions.endpoints.map((e) => e.name).join()
  ],
  [
    'an endpoint that is deleted',
    "UPDATE endpoint SET deleted = TRUE, version = version + 1 WHERE site_id = 'skerrow' LIMIT 1",
    ({ actions }) => actions.endpoints.length
  ],
  [
    'hours',
    "UPDATE schedule SET body = JSON_SET(body, '$.name', 'Other'), version = version + 1 WHERE site_id = 'skerrow' LIMIT 1",
    ({ schedules }) => schedules.map((s) => s.name).join()
  ],
  [
    'people',
    `UPDATE site_setting SET body = '{"value":{"people":[],"groups":[]}}', version = version + 1 WHERE site_id = 'skerrow' AND name = 'people'`,
    ({ actions }) => actions.people.people.length
  ],
  [
    'inputs of the site, which have no version',
    "UPDATE site SET inputs = '[]' WHERE id = 'skerrow'",
    ({ site }) => site.inputs.length
  ],
  [
    'the time zone',
    "UPDATE site SET time_zone = 'Asia/Tokyo' WHERE id = 'skerrow'",
    ({ site }) => site.timeZone
  ]
])('%s is read when it has changed', async (_, change, look) => {
  const before = look(await now())
  await t.database.run(change)
  expect(look(await now())).not.toEqual(before)
})
