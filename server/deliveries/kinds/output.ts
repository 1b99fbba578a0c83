import { said } from '../../../core/messages/said.ts'
import { outputSettings } from '../../../core/devices/outputs.ts'
import type { OutputEndpoint } from '../../../core/formats/actions.ts'
import { voiceOf } from '../../actions/voices.ts'
import { readDevice } from '../../devices/queries.ts'
import { short, type DeliveryKind, type Done, type SenderParts } from './kind.ts'

const TEST_MS = 3000

/** An output of a device. */
export const output: DeliveryKind<OutputEndpoint> = {
  send: (parts, { does }, endpoint) => switchOutput(parts, endpoint, does),
  test: async (parts, endpoint) => {
    const { outcome } = await switchOutput(parts, endpoint, 'on')
    // A test of one that stays closed until acknowledged would never open.
    if ('mode' in endpoint && endpoint.mode !== 'pulse')
      setTimeout(() => void switchOutput(parts, endpoint, 'off').catch(() => {}), TEST_MS)
    return outcome
  },
  recipient: ({ device }, { named }) => named(device),
  patience: short,
  atOnce: 1
}

/** Switches an output on its device, or releases it. */
async function switchOutput(
  { database, devices }: Pick<SenderParts, 'database' | 'devices'>,
  endpoint: OutputEndpoint,
  does: 'on' | 'off'
): Promise<Done> {
  const row = await readDevice(database, endpoint.device)
  const link = devices.link(row)
  if (does === 'off') {
    await link.io.release(endpoint.output)
    return { outcome: said('deliveries.switchedOff', row.name) }
  }
  const settings = outputSettings(endpoint)
  // The server opens it again itself.
  if ('mode' in endpoint && endpoint.mode === 'follow') settings.Mode = 'untilAcknowledged'
  await link.io.activate(endpoint.output, settings, await voiceOf(database, row.site, endpoint))
  return { outcome: said('deliveries.switchedOn', row.name) }
}
