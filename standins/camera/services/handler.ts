import { content, xml } from '../../../core/formats/onvif/xml.ts'
import type { Element } from '../../../core/formats/onvif/xml.ts'
import type { Device } from '../device.ts'

/** Answers one question of the standard: the answer's element. @param gone whoever asked has gone */
export type Handler = (
  device: Device,
  action: Element,
  path: string,
  gone: AbortSignal
) => string | Promise<string>

export const text = (name: string, value: string | number | boolean): string =>
  xml(name, {}, content(value))

/** Seconds of a duration such as PT1M30S. */
export const secondsOf = (duration: string, fallback: number): number => {
  const m = /^PT(?:(\d+)M)?(?:(\d+(?:\.\d+)?)S)?$/.exec(duration)
  return m ? Number(m[1] ?? 0) * 60 + Number(m[2] ?? 0) : fallback
}
