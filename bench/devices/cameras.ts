import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { demoPlay } from '../../demo/scenes.ts'
import { Device } from '../../simulators/camera/device.ts'
import { readModels } from '../../simulators/camera/model.ts'

/**
 * Many simulated cameras as one process: `cameras.ts COUNT`. Says their addresses in one line; told
 * by messages what happens.
 */
export type Happens = { device: number; rule: string } | 'forget'

const count = Number(process.argv[2])
const account = { username: 'admin', password: 'bench-1234' }
const rule = (type: string) => ({
  type,
  most: 40,
  parameters: ['Direction', 'Sensitivity', 'ClassFilter', 'TimeThreshold', 'ConfirmTime'],
  ranges: {
    Sensitivity: { min: 1, max: 100 },
    TimeThreshold: { min: 0, max: 60 },
    ConfirmTime: { min: 0, max: 10 }
  }
})
const models = readModels(
  Array.from({ length: count }, (_, n) => ({
    id: `cam-${n}`,
    name: `Camera ${n}`,
    manufacturer: 'Halden Optics',
    model: 'HO-40',
    firmware: '2.4.1',
    serial: `S${n}`,
    account,
    channels: [
      {
        name: `Camera ${n}`,
        camera: 'slipway',
        rules: [rule('tt:LineDetector'), rule('tt:FieldDetector')]
      }
    ]
  }))
)
const folder = mkdtempSync(join(tmpdir(), 'wardoptic-cameras-'))
const play = demoPlay('slipway', 'morning')
const devices = await Promise.all(
  models.map((model) =>
    new Device(model, { playOf: () => play }, join(folder, `${model.id}.json`)).start()
  )
)
process.stdout.write(
  `${JSON.stringify({ account, addresses: devices.map(({ address }) => address) })}\n`
)

process.on('message', (happens: Happens) => {
  if (happens === 'forget') for (const { pullPoints } of devices) pullPoints.endAll()
  else
    devices[happens.device]!.pullPoints.put({
      topic: 'tns1:RuleEngine/Bench',
      operation: 'Changed',
      at: Date.now(),
      source: { Rule: happens.rule },
      data: {}
    })
})
process.on('disconnect', () => {
  rmSync(folder, { recursive: true, force: true })
  process.exit(0)
})
