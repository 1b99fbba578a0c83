import { EndpointSchema, type Endpoint, type EndpointKind } from '../../core/formats/actions.ts'
import { newId } from '../kept/newId.ts'
import { kindWords } from './words.ts'
import { parseWith } from '../../core/schema/parse.ts'

/** Settings to begin with, common in the trade (docs/references.md); each is changed beside the matrix. */
const usual: Record<EndpointKind, object> = {
  strobe: { seconds: 10, pattern: 'fast' },
  speaker: { voice: { phrase: 'recorded' }, repeats: 2, volume: 80 },
  relay: { mode: 'pulse', seconds: 5 },
  buzzer: { seconds: 10 },
  email: { recipients: [] },
  station: {
    host: 'stand-in',
    port: 7700,
    account: '0001',
    accepts: 'minor',
    heartbeatSeconds: 60
  },
  webhook: { url: 'http://stand-in/hooks' },
  popup: { sound: 'chime' },
  recording: { camera: null, beforeSeconds: 5, afterSeconds: 15 },
  snapshots: { camera: null, before: 2, after: 2 }
}

/** @param output of a device, for kinds that are one */
export function newEndpoint(
  kind: EndpointKind,
  taken: readonly string[],
  output?: { device: string; token: string; name: string }
): Endpoint {
  const base = output?.name ?? kindWords[kind].name
  let name = base
  for (let n = 2; taken.includes(name); n++) name = `${base} ${n}`
  return parseWith(EndpointSchema, {
    id: newId(kind),
    name,
    kind,
    ...(output && { device: output.device, output: output.token }),
    ...usual[kind]
  })
}
