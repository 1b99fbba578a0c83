import { expect, test } from '@jest/globals'
import { EndpointSchema, type Endpoint, type Mail } from '../formats/actions.ts'
import { parseWith } from '../schema/parse.ts'
import { isReal } from './real.ts'

const endpoint = (settings: object): Endpoint =>
  parseWith(EndpointSchema, { id: 'e', name: 'E', ...settings })
const strobe = endpoint({
  kind: 'strobe',
  device: 'cam',
  output: 'o1',
  seconds: 10,
  pattern: 'fast'
})
const stationAt = (host: string): Endpoint =>
  endpoint({
    kind: 'station',
    host,
    port: 1,
    account: '12ab',
    accepts: 'major',
    heartbeatSeconds: 0
  })
const hookAt = (url: string): Endpoint => endpoint({ kind: 'webhook', url })
const mailTo = endpoint({ kind: 'email', recipients: ['a@b.example'] })
const mailAt = (host: string): Mail => ({
  host,
  port: 25,
  encryption: 'none',
  username: null,
  sender: 'a@b.example'
})
const site = {
  mail: mailAt('simulator'),
  devices: new Map<string, string>(),
  simulators: 'simulator'
}

test.each([
  ['http://192.168.1.20', true],
  ['http://[2001:db8::7]:8080', true],
  ['http://127.example', true],
  ['http://127.0.0.1:40123', false],
  ['http://localhost', false],
  ['http://[::1]:80', false]
])('an output of a device at %s: %p', (address, real) => {
  expect(isReal(strobe, { ...site, devices: new Map([['cam', address]]) })).toBe(real)
})

test('an output of a deleted device is not real', () => {
  expect(isReal(strobe, site)).toBe(false)
})

test('deliveries to a simulator are not real, the same elsewhere are', () => {
  const simulated = [stationAt('simulator'), hookAt('http://simulator/hooks'), mailTo]
  expect(simulated.map((e) => isReal(e, site))).toEqual([false, false, false])
  expect(simulated.map((e) => isReal(e, { ...site, simulators: null }))).toEqual([true, true, true])
  expect(
    [stationAt('127.0.0.1'), hookAt('https://u:p@example.org:8443/simulator')].map((e) =>
      isReal(e, site)
    )
  ).toEqual([true, true])
  expect(isReal(mailTo, { ...site, mail: mailAt('mail.example') })).toBe(true)
  expect(isReal(mailTo, { ...site, mail: null })).toBe(false)
})

test('pop-ups, recordings and snapshots are never real', () => {
  for (const settings of [
    { kind: 'popup', sound: 'alarm' },
    { kind: 'recording', camera: null, beforeSeconds: 5, afterSeconds: 15 },
    { kind: 'snapshots', camera: null, before: 1, after: 1, stepSeconds: 1 }
  ])
    expect(isReal(endpoint(settings), { ...site, simulators: null })).toBe(false)
})
