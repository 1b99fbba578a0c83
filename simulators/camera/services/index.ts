import { errorWords } from '../../../core/messages/errorWords.ts'
import { simulators as msg } from '../../../core/messages/en/codes/simulators.ts'
import { InputError } from '../../../core/errors.ts'
import type { Element } from '../../../core/formats/onvif/xml.ts'
import { Refusal } from '../refusal.ts'
import { analyticsHandlers } from './analytics.ts'
import { MEDIA2_PATH, deviceHandlers } from './device.ts'
import { eventHandlers } from './events.ts'
import type { Handler, Served } from './handler.ts'
import { imagingHandlers } from './imaging.ts'
import { mediaHandlers } from './media.ts'
import { media2Handlers } from './media2.ts'
import { outputHandlers } from './outputs.ts'
import { storageHandlers } from './storage.ts'

/**
 * Questions that are answered without a token. Source: ONVIF Core Specification, access classes
 * PRE_AUTH (from memory).
 */
export const OPEN_ACTIONS = new Set([
  'GetSystemDateAndTime',
  'GetServices',
  'GetCapabilities',
  'GetHostname'
])

const always = { ...deviceHandlers, ...mediaHandlers }
/** What answers a device's actions, by what it may lack. */
const optional = [
  ['events', eventHandlers],
  ['analytics', analyticsHandlers],
  ['outputs', outputHandlers],
  ['imaging', imagingHandlers],
  ['storage', storageHandlers]
] as const

/** Media 1 and Media 2 have actions of the same names, and are told apart by their addresses. */
function handlerOf(device: Served, name: string, path: string): Handler | undefined {
  const own = (handlers: Readonly<Record<string, Handler>>): Handler | undefined =>
    Object.hasOwn(handlers, name) ? handlers[name] : undefined
  if (path.endsWith(`/${MEDIA2_PATH}`)) return device.model.media2 ? own(media2Handlers) : undefined
  return (
    own(always) ??
    optional.flatMap(([part, handlers]) => (device.has(part) ? (own(handlers) ?? []) : []))[0]
  )
}

/** Answers an action. @throws Refusal for one that is not known, or that is refused */
export async function answer(
  device: Served,
  action: Element,
  path: string,
  gone: AbortSignal
): Promise<string> {
  const handler = handlerOf(device, action.name, path)
  if (!handler)
    throw new Refusal('ter:ActionNotSupported', msg.isNotSupported(action.name.slice(0, 60)))
  try {
    return await handler(device, action, path, gone)
  } catch (error) {
    if (error instanceof InputError) throw new Refusal('ter:InvalidArgVal', errorWords(error))
    throw error
  }
}
