import { EndpointSchema, type Endpoint, type EndpointKind } from '../../core/formats/actions.ts'
import { parseWith } from '../../core/schema/parse.ts'
import { newId } from '../sync/newId.ts'
import { faceOf } from './kinds.ts'

/**
 * A new endpoint with settings to begin with.
 *
 * @param simulators that run on this machine: what has to be somewhere begins there
 * @param output of a device, for kinds that are one
 */
export function newEndpoint(
  kind: EndpointKind,
  taken: readonly string[],
  simulators: { host: string } | null,
  output?: { device: string; token: string; name: string }
): Endpoint {
  const { name: usual, start } = faceOf(kind)
  const base = output?.name ?? usual
  let name = base
  for (let n = 2; taken.includes(name); n++) name = `${base} ${n}`
  return parseWith(EndpointSchema, {
    id: newId(kind),
    name,
    kind,
    ...(output && { device: output.device, output: output.token }),
    ...start(simulators)
  })
}
