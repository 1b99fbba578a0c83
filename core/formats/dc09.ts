import { coded, said } from '../messages/said.ts'
import { InputError } from '../errors.ts'
import type { DetectionKind } from './plan.ts'
import type { Severity } from '../kinds/parts.ts'

/**
 * Messages to a monitoring station: ANSI/SIA DC-09 (Internet Protocol Event Reporting) with event codes of ANSI/SIA
 * DC-03, both from memory. A frame is
 *
 *     <LF> crc 0LLL "id" seq R<receiver> L<line> #account [data] _time <CR>
 *
 * with the CRC-16 and the length of what stands from the first quote on, up to the CR.
 */
export type FrameId = 'SIA-DCS' | 'NULL' | 'ACK' | 'NAK' | 'DUH'

/** Numbers of frames begin again after it. */
export const MAX_SEQUENCE = 9999

export interface Frame {
  id: FrameId
  /**
   * 1 to 9999; the same when it is sent again, so that the receiver knows. 0 in a NAK, whose
   * question could not be read.
   */
  sequence: number
  account: string
  /** What stands between the brackets, after `#account|`; empty: nothing. */
  data: string
  /** Milliseconds of UTC; null: none. */
  at: number | null
}

/** CRC-16 with the polynomial 0x8005, reflected, from 0 (CRC-16/ARC). */
export function crc16(text: string): number {
  let crc = 0
  for (const byte of new TextEncoder().encode(text)) {
    crc ^= byte
    for (let bit = 0; bit < 8; bit++) crc = crc & 1 ? (crc >>> 1) ^ 0xa001 : crc >>> 1
  }
  return crc
}

const hex = (value: number): string => value.toString(16).toUpperCase().padStart(4, '0')

function stamp(at: number): string {
  const iso = new Date(at).toISOString()
  return `_${iso.slice(11, 19)},${iso.slice(5, 7)}-${iso.slice(8, 10)}-${iso.slice(0, 4)}`
}

/** What a bracket, or the end of a frame, must not hold. */
export const plain = (text: string): string => text.replace(/[[\]|^"\r\n]/g, ' ').trim()

export function writeFrame({ id, sequence, account, data, at }: Frame): string {
  const body = `"${id}"${String(sequence).padStart(4, '0')}L0#${account}[${data ? `#${account}|${data}` : ''}]${at === null ? '' : stamp(at)}`
  return `\n${hex(crc16(body))}${hex(new TextEncoder().encode(body).length)}${body}\r`
}

/** @throws InputError for what is no frame, or a damaged one */
export function readFrame(text: string): Frame {
  const m = /^\n?([0-9A-F]{4})([0-9A-F]{4})("[^\r\n]*)\r?$/i.exec(text)
  if (!m) throw new InputError(coded('places.frame'), said('formats.mustBeACrcA'))
  const [, crc = '', length = '', body = ''] = m
  const bytes = new TextEncoder().encode(body).length
  if (parseInt(length, 16) !== bytes)
    throw new InputError(
      coded('places.frame'),
      said('formats.saysBytesAndHas', parseInt(length, 16), bytes)
    )
  if (parseInt(crc, 16) !== crc16(body))
    throw new InputError(coded('places.frame'), said('formats.hasTheCrcIt', crc, hex(crc16(body))))
  const parts =
    /^"(SIA-DCS|NULL|ACK|NAK|DUH)"(\d{4})(?:R[0-9A-F]{1,6})?L[0-9A-F]{1,6}(?:#([0-9A-F]{1,16}))?\[(?:#[0-9A-F]{1,16}\|)?([^\]]*)\](?:_(\d\d):(\d\d):(\d\d),(\d\d)-(\d\d)-(\d{4}))?$/i.exec(
      body
    )
  if (!parts)
    throw new InputError(coded('places.frame'), said('formats.isMustBeSiaDcs', body.slice(0, 60)))
  const [
    ,
    id,
    sequence,
    account = '',
    data = '',
    h,
    min = '',
    s = '',
    month = '',
    day = '',
    year = ''
  ] = parts
  return {
    id: id as FrameId,
    sequence: Number(sequence),
    account,
    data,
    at: h === undefined ? null : Date.UTC(+year, +month - 1, +day, +h, +min, +s)
  }
}

/** Event codes of DC-03: burglary, tamper, trouble, untyped alarm. */
const CODES: Record<DetectionKind, string> = {
  line: 'BA',
  intrusion: 'BA',
  entry: 'BA',
  exit: 'BA',
  loitering: 'BA',
  motion: 'BA',
  classMotion: 'BA',
  tamper: 'TA',
  signalLoss: 'UT',
  contact: 'UA',
  face: 'UA'
}

/** What the monitoring station is told of a kind of detection. */
export const eventCode = (kind: DetectionKind): string => CODES[kind]

export interface StationEvent {
  kind: DetectionKind
  /** The camera's number on the site, from 1. */
  zone: number
  severity: Severity
  words: string
}

/** An event as the data of a frame: `Nri1/BA01^severity: words^`. */
export const eventData = ({ kind, zone, severity, words }: StationEvent): string =>
  `Nri1/${eventCode(kind)}${String(zone).padStart(2, '0')}^${severity}: ${plain(words).slice(0, 120)}^`

/** Reads an event back. @throws InputError */
export function readEvent(data: string): {
  code: string
  zone: number
  severity: string
  words: string
} {
  const m = /^N?(?:ri\d+\/)?([A-Z]{2})(\d{1,4})(?:\^(?:(\w+): )?([^^]*)\^)?$/.exec(data)
  if (!m) throw new InputError(coded('places.event'), said('formats.isMustBe8', data.slice(0, 60)))
  return { code: m[1]!, zone: Number(m[2]), severity: m[3] ?? '', words: m[4] ?? '' }
}
