import { coded, said, type Said } from '../../messages/said.ts'
import { sha1 } from '@noble/hashes/legacy.js'
import { Failure, InputError } from '../../errors.ts'
import { child, content, down, readXml, xml, type Element } from './xml.ts'

/** Namespaces by the prefixes used here. Source: the ONVIF WSDLs and schemas (from memory). */
export const NAMESPACES = {
  s: 'http://www.w3.org/2003/05/soap-envelope',
  wsse: 'http://docs.oasis-open.org/wss/2004/01/oasis-200401-wss-wssecurity-secext-1.0.xsd',
  wsu: 'http://docs.oasis-open.org/wss/2004/01/oasis-200401-wss-wssecurity-utility-1.0.xsd',
  wsa: 'http://www.w3.org/2005/08/addressing',
  wsnt: 'http://docs.oasis-open.org/wsn/b-2',
  tt: 'http://www.onvif.org/ver10/schema',
  tds: 'http://www.onvif.org/ver10/device/wsdl',
  trt: 'http://www.onvif.org/ver10/media/wsdl',
  tr2: 'http://www.onvif.org/ver20/media/wsdl',
  tev: 'http://www.onvif.org/ver10/events/wsdl',
  tmd: 'http://www.onvif.org/ver10/deviceIO/wsdl',
  timg: 'http://www.onvif.org/ver20/imaging/wsdl',
  trc: 'http://www.onvif.org/ver10/recording/wsdl',
  tan: 'http://www.onvif.org/ver20/analytics/wsdl',
  tns1: 'http://www.onvif.org/ver10/topics',
  ter: 'http://www.onvif.org/ver10/error',
  wsd: 'http://schemas.xmlsoap.org/ws/2005/04/discovery',
  wsa4: 'http://schemas.xmlsoap.org/ws/2004/08/addressing',
  dn: 'http://www.onvif.org/ver10/network/wsdl',
  wo: 'http://wardoptic.example/device/1'
} as const

const PASSWORD_DIGEST =
  'http://docs.oasis-open.org/wss/2004/01/oasis-200401-wss-username-token-profile-1.0#PasswordDigest'
const BASE64 =
  'http://docs.oasis-open.org/wss/2004/01/oasis-200401-wss-soap-message-security-1.0#Base64Binary'

export interface UsernameToken {
  username: string
  digest: string
  /** base64 */
  nonce: string
  /** As written, such as 2026-11-24T18:00:00.000Z. */
  created: string
}

const base64 = (bytes: Uint8Array): string => btoa(String.fromCharCode(...bytes))
const bytesOf = (text: string): Uint8Array => Uint8Array.from(atob(text), (c) => c.charCodeAt(0))

/**
 * The digest of a UsernameToken: Base64(SHA-1(nonce + created + password)).
 * Source: OASIS Web Services Security UsernameToken Profile 1.0.
 */
export function passwordDigest(nonce: string, created: string, password: string): string {
  const utf8 = new TextEncoder()
  const parts = [bytesOf(nonce), utf8.encode(created), utf8.encode(password)]
  const all = new Uint8Array(parts.reduce((sum, p) => sum + p.length, 0))
  let at = 0
  for (const part of parts) {
    all.set(part, at)
    at += part.length
  }
  return base64(sha1(all))
}

/** @param nonce random bytes @param now milliseconds of UTC, on the device's clock */
export function makeToken(
  username: string,
  password: string,
  nonce: Uint8Array,
  now: number
): UsernameToken {
  const created = new Date(now).toISOString()
  const text = base64(nonce)
  return { username, nonce: text, created, digest: passwordDigest(text, created, password) }
}

/** A message: its body, and the token if it needs one. Only namespaces that are used are declared. */
export function envelope(
  body: string,
  { token, header = '' }: { token?: UsernameToken | null; header?: string } = {}
): string {
  const security = token
    ? xml(
        'wsse:Security',
        { 's:mustUnderstand': 1 },
        xml(
          'wsse:UsernameToken',
          {},
          xml('wsse:Username', {}, content(token.username)),
          xml('wsse:Password', { Type: PASSWORD_DIGEST }, content(token.digest)),
          xml('wsse:Nonce', { EncodingType: BASE64 }, token.nonce),
          xml('wsu:Created', {}, token.created)
        )
      )
    : ''
  const inner = `${xml('s:Header', {}, security + header)}${xml('s:Body', {}, body)}`
  const used = Object.entries(NAMESPACES).filter(
    ([prefix]) => prefix === 's' || inner.includes(`${prefix}:`)
  )
  return `<?xml version="1.0" encoding="UTF-8"?>${xml('s:Envelope', Object.fromEntries(used.map(([prefix, uri]) => [`xmlns:${prefix}`, uri])), inner)}`
}

/** What a message asks for or answers: the first element of its body, and the token that came with it. */
export interface Message {
  action: Element
  header: Element | undefined
  token: UsernameToken | null
}

/** @throws InputError when it is no SOAP message */
export function readMessage(text: string, place = coded('places.message')): Message {
  const root = readXml(text, place)
  const body = root.name === 'Envelope' ? child(root, 'Body') : undefined
  if (!body)
    throw new InputError(place, said('formats.isNoSoapEnvelopeIts', root.name.slice(0, 40)))
  const header = child(root, 'Header')
  const username = down(header, 'Security', 'UsernameToken')
  const part = (name: string): string => child(username, name)?.text ?? ''
  return {
    action: body.children[0] ?? { name: '', attributes: {}, children: [], text: '' },
    header,
    token: username
      ? {
          username: part('Username'),
          digest: part('Password'),
          nonce: part('Nonce'),
          created: part('Created')
        }
      : null
  }
}

/** A device's refusal. */
export class SoapFault extends Failure {
  /** The standard's subcodes, from the general to the special, such as ter:NotAuthorized. */
  readonly codes: string[]

  /** @param reason in the words of the device; or that it gave none */
  constructor(codes: string[], reason: Said | string) {
    super(reason)
    this.codes = codes
  }
}

/** The refusal that a message is, or null. */
export function faultOf({ action }: Message): SoapFault | null {
  if (action.name !== 'Fault') return null
  const codes: string[] = []
  for (let code = child(action, 'Code'); code; code = child(code, 'Subcode'))
    codes.push(child(code, 'Value')?.text ?? '')
  return new SoapFault(
    codes,
    down(action, 'Reason', 'Text')?.text || said('formats.refusedWithoutAReason')
  )
}

export const faultBody = (role: 'Sender' | 'Receiver', subcode: string, reason: string): string =>
  xml(
    's:Fault',
    {},
    xml(
      's:Code',
      {},
      xml('s:Value', {}, `s:${role}`),
      xml('s:Subcode', {}, xml('s:Value', {}, subcode))
    ),
    xml('s:Reason', {}, xml('s:Text', { 'xml:lang': 'en' }, content(reason)))
  )
