import { errorWords } from '../../../core/messages/errorWords.ts'
import { simulators as msg } from '../../../core/messages/en/codes/simulators.ts'
import { InputError } from '../../../core/errors.ts'
import type { Element } from '../../../core/formats/onvif/xml.ts'
import { Refusal } from '../refusal.ts'
import { analyticsHandlers } from './analytics.ts'
import { deviceHandlers } from './device.ts'
import { eventHandlers } from './events.ts'
import type { Handler, Served } from './handler.ts'
import { imagingHandlers } from './imaging.ts'
import { mediaHandlers } from './media.ts'
import { outputHandlers } from './outputs.ts'

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

const handlers: Record<string, Handler> = {
  ...deviceHandlers,
  ...mediaHandlers,
  ...eventHandlers,
  ...analyticsHandlers,
  ...outputHandlers,
  ...imagingHandlers
}

/** Answers an action. @throws Refusal for one that is not known, or that is refused */
export async function answer(
  device: Served,
  action: Element,
  path: string,
  gone: AbortSignal
): Promise<string> {
  const handler = Object.hasOwn(handlers, action.name) ? handlers[action.name] : undefined
  if (!handler)
    throw new Refusal('ter:ActionNotSupported', msg.isNotSupported(action.name.slice(0, 60)))
  try {
    return await handler(device, action, path, gone)
  } catch (error) {
    if (error instanceof InputError) throw new Refusal('ter:InvalidArgVal', errorWords(error))
    throw error
  }
}
