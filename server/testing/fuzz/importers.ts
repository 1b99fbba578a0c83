import { readFileSync } from 'node:fs'
import { InputError } from '../../../core/errors.ts'
import { readFrame, readEvent, writeFrame } from '../../../core/formats/dc09.ts'
import { readArmInputs } from '../../../core/formats/evidence.ts'
import { readFaces } from '../../../core/formats/faces.ts'
import { readMot } from '../../../core/formats/mot.ts'
import { readProbeMatches } from '../../../core/formats/onvif/discovery.ts'
import { readHours } from '../../../core/formats/onvif/hours.ts'
import { readChallenge } from '../../../core/formats/onvif/httpDigest.ts'
import { readActiveCells } from '../../../core/formats/onvif/activeCells.ts'
import { readMetadata } from '../../../core/formats/onvif/metadata.ts'
import { readRule } from '../../../core/formats/onvif/ruleXml.ts'
import { faultOf, readMessage } from '../../../core/formats/onvif/soap.ts'
import { readXml } from '../../../core/formats/onvif/xml.ts'
import { readPlan } from '../../../core/formats/plan.ts'
import { readWave } from '../../../core/formats/wave.ts'
import { readMeasures } from '../../../core/measures/measures.ts'
import { readScene, readScript } from '../../../simulation/script.ts'
import type { Chance } from './chance.ts'
import { mangled } from './values.ts'

// Whatever comes from outside as a text or as bytes, read by what reads it: each either reads it or says what is wrong.

const demo = (name: string): string =>
  readFileSync(new URL(`../../../demo/${name}`, import.meta.url), 'utf8')
const scene = JSON.parse(demo('scenes/slipway.json')) as { scene: unknown; scripts: unknown[] }
const plan = JSON.stringify((JSON.parse(demo('plan.json')) as { plan: unknown }).plan)
const size = { width: 640, height: 360 }

const SOAP = `<?xml version="1.0"?><s:Envelope xmlns:s="http://www.w3.org/2003/05/soap-envelope" xmlns:tt="http://www.onvif.org/ver10/schema" xmlns:tan="http://www.onvif.org/ver20/analytics/wsdl"><s:Header/><s:Body><tan:GetRulesResponse><tan:Rule Name="Quay" Type="tt:LineDetector"><tt:Parameters><tt:SimpleItem Name="Direction" Value="Right"/><tt:ElementItem Name="Segments"><tt:Polyline><tt:Point x="-0.5" y="0.1"/><tt:Point x="0.5" y="0.1"/></tt:Polyline></tt:ElementItem></tt:Parameters></tan:Rule></tan:GetRulesResponse></s:Body></s:Envelope>`
const METADATA = `<tt:MetadataStream xmlns:tt="http://www.onvif.org/ver10/schema"><tt:VideoAnalytics><tt:Frame UtcTime="2026-11-27T08:00:00.100Z"><tt:Object ObjectId="3"><tt:Appearance><tt:Shape><tt:BoundingBox left="-0.1" top="0.4" right="0.1" bottom="-0.2"/><tt:CenterOfGravity x="0" y="0.1"/></tt:Shape><tt:Class><tt:Type Likelihood="0.9">Human</tt:Type></tt:Class></tt:Appearance></tt:Object></tt:Frame></tt:VideoAnalytics></tt:MetadataStream>`
const PROBE = `<s:Envelope xmlns:s="http://www.w3.org/2003/05/soap-envelope" xmlns:d="http://schemas.xmlsoap.org/ws/2005/04/discovery"><s:Body><d:ProbeMatches><d:ProbeMatch><d:Scopes>onvif://www.onvif.org/name/Gate onvif://www.onvif.org/hardware/X1</d:Scopes><d:XAddrs>http://192.0.2.7/onvif/device_service</d:XAddrs></d:ProbeMatch></d:ProbeMatches></s:Body></s:Envelope>`

type Reader = (text: string) => unknown

const readers: Readonly<Record<string, { sample: string; read: Reader }>> = {
  plan: { sample: plan, read: readPlan },
  scene: { sample: JSON.stringify(scene.scene), read: (t) => readScene(json(t)) },
  script: { sample: JSON.stringify(scene.scripts[0]), read: (t) => readScript(json(t)) },
  tracks: {
    sample: '1,1,10,20,30,40,0.9,1,1\n2,1,11,20,30,40,0.9,1,1\n3,2,300,200,30,60,0.5,2,0.8\n',
    read: (t) => readMot(t, 10, size)
  },
  faces: {
    sample: '1,1,10,20,30,40,0.9,1\n2,1,11,20,30,40,0.9,0\n',
    read: (t) => readFaces(t, size)
  },
  inputs: { sample: '{"panel":[{"at":0,"set":true}]}', read: readArmInputs },
  measures: {
    sample: 'WOM1\u0000\u0000\u0001\u0002aaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaa',
    read: (t) => readMeasures(Buffer.from(t, 'latin1'))
  },
  wave: {
    sample: readFileSync(new URL('../../voices/water.wav', import.meta.url))
      .subarray(0, 400)
      .toString('latin1'),
    read: (t) => readWave(Buffer.from(t, 'latin1'))
  },
  xml: { sample: SOAP, read: (t) => readXml(t) },
  message: { sample: SOAP, read: (t) => faultOf(readMessage(t)) },
  rule: { sample: SOAP, read: (t) => readMessage(t).action.children.map(readRule) },
  metadata: { sample: METADATA, read: readMetadata },
  discovery: { sample: PROBE, read: readProbeMatches },
  hours: { sample: 'FREQ=WEEKLY;BYDAY=MO;BYHOUR=7', read: readHours },
  cells: { sample: '/wAB', read: (t) => readActiveCells(t, { columns: 22, rows: 18 }) },
  challenge: {
    sample: 'Digest realm="camera", qop="auth", nonce="abc", opaque="x", algorithm=SHA-256',
    read: readChallenge
  },
  station: {
    sample: writeFrame({
      id: 'SIA-DCS',
      sequence: 12,
      account: '1234',
      data: '#1234|Nri1/BA01',
      at: Date.parse('2026-11-27T08:00:00Z')
    }),
    read: (t) => readEvent(readFrame(t).data)
  }
}

function json(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    return text
  }
}

/** Reads one mangled text. @returns what went wrong beyond a refusal in words; null: nothing */
export function fuzzImporter(
  c: Chance,
  slowMs: number
): { name: string; input: string; problem: string } | null {
  const name = c.of(Object.keys(readers))
  const { sample, read } = readers[name]!
  const input = c.is(0.02) ? sample.repeat(1 + c.below(50)) : mangled(sample, c)
  const began = performance.now()
  try {
    read(input)
  } catch (error) {
    if (!(error instanceof InputError))
      return { name, input, problem: String((error as Error).stack ?? error) }
  }
  const took = performance.now() - began
  return took > slowMs ? { name, input, problem: `took ${took.toFixed(0)} ms` } : null
}
