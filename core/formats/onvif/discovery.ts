import { coded } from '../../messages/said.ts'
import { envelope } from './soap.ts'
import { child, children, content, down, readXml, xml } from './xml.ts'

/**
 * Finding devices on a network. Source: WS-Discovery (2005/04), as the ONVIF Core Specification uses it (from memory):
 * a Probe to the group 239.255.255.250, port 3702, is answered by a ProbeMatches from each device.
 */
export const DISCOVERY_GROUP = '239.255.255.250'
export const DISCOVERY_PORT = 3702

const ACTION = 'http://schemas.xmlsoap.org/ws/2005/04/discovery'

/** @param id a fresh UUID */
export const probe = (id: string): string =>
  envelope(xml('wsd:Probe', {}, xml('wsd:Types', {}, 'dn:NetworkVideoTransmitter')), {
    header: `${xml('wsa4:Action', {}, `${ACTION}/Probe`)}${xml('wsa4:MessageID', {}, `urn:uuid:${id}`)}${xml('wsa4:To', {}, 'urn:schemas-xmlsoap-org:ws:2005:04:discovery')}`
  })

/** The id of a probe for devices of this kind, or null when the message is something else. */
export function probeId(text: string): string | null {
  try {
    const root = readXml(text, coded('places.probe'))
    const asked = down(root, 'Body', 'Probe')
    const types = child(asked, 'Types')?.text ?? ''
    if (!asked || (types && !/NetworkVideoTransmitter|Device/.test(types))) return null
    return down(root, 'Header', 'MessageID')?.text ?? ''
  } catch {
    return null
  }
}

export interface ProbeMatch {
  /** Where the device can be spoken with. */
  address: string
  name: string
  hardware: string
}

const SCOPE = 'onvif://www.onvif.org/'

/** What a device says of itself in words of the standard: its kind, profile, name and hardware. */
export const scopesOf = (name: string, hardware: string): string[] => [
  `${SCOPE}type/NetworkVideoTransmitter`,
  `${SCOPE}Profile/Streaming`,
  `${SCOPE}name/${encodeURIComponent(name)}`,
  `${SCOPE}hardware/${encodeURIComponent(hardware)}`
]

/** @param ids a fresh UUID of the message, and the one that was asked with */
export const probeMatches = (match: ProbeMatch, id: string, relatesTo: string): string =>
  envelope(
    xml(
      'wsd:ProbeMatches',
      {},
      xml(
        'wsd:ProbeMatch',
        {},
        xml('wsa4:EndpointReference', {}, xml('wsa4:Address', {}, `urn:uuid:${id}`)),
        xml('wsd:Types', {}, 'dn:NetworkVideoTransmitter'),
        xml('wsd:Scopes', {}, content(scopesOf(match.name, match.hardware).join(' '))),
        xml('wsd:XAddrs', {}, content(`${match.address}/onvif/device_service`)),
        xml('wsd:MetadataVersion', {}, '1')
      )
    ),
    {
      header: `${xml('wsa4:Action', {}, `${ACTION}/ProbeMatches`)}${xml('wsa4:RelatesTo', {}, content(relatesTo))}`
    }
  )

const scope = (scopes: string, name: string): string => {
  const found = scopes.split(/\s+/).find((s) => s.startsWith(`${SCOPE}${name}/`))
  try {
    return found ? decodeURIComponent(found.slice(SCOPE.length + name.length + 1)).slice(0, 80) : ''
  } catch {
    return ''
  }
}

/** The devices that an answer tells of; none for what is no answer. Only addresses over HTTP are taken. */
export function readProbeMatches(text: string): ProbeMatch[] {
  try {
    return children(
      down(readXml(text, coded('places.answer')), 'Body', 'ProbeMatches'),
      'ProbeMatch'
    ).flatMap((match) => {
      const address = (child(match, 'XAddrs')?.text ?? '')
        .split(/\s+/)
        .find((x) => URL.canParse(x) && /^https?:$/.test(new URL(x).protocol))
      const scopes = child(match, 'Scopes')?.text ?? ''
      return address
        ? [
            {
              address: new URL(address).origin,
              name: scope(scopes, 'name'),
              hardware: scope(scopes, 'hardware')
            }
          ]
        : []
    })
  } catch {
    return []
  }
}
