import { Failure } from '../../../core/errors.ts'
import { said, type Said } from '../../../core/messages/said.ts'
/** Why a device could not be spoken with, as the Devices place tells them apart. */
export type DeviceErrorKind =
  | 'offline'
  | 'slow'
  | 'wrong-password'
  | 'no-account'
  | 'broken'
  | 'refused'
  /** It shows another certificate than before. */
  | 'certificate'

export class DeviceError extends Failure {
  readonly kind: DeviceErrorKind

  constructor(kind: DeviceErrorKind, why: Said | string, cause?: unknown) {
    super(why, cause)
    this.kind = kind
  }
}

/** Whether the device has answered with a refusal. */
export const isRefusal = (error: unknown): error is DeviceError =>
  error instanceof DeviceError && ['refused', 'no-account', 'wrong-password'].includes(error.kind)

/** Whether the device has not answered at all. */
export const isAway = (error: unknown): boolean =>
  error instanceof DeviceError && (error.kind === 'offline' || error.kind === 'slow')

/** The answer, or nothing where the device refuses: a missing service is normal, not a failure. */
export async function ifOffered<T>(work: Promise<T>): Promise<T | undefined> {
  try {
    return await work
  } catch (error) {
    if (error instanceof DeviceError && error.kind === 'refused') return undefined
    throw error
  }
}

/** What went wrong with a request, as a DeviceError. */
export function deviceErrorOf(error: unknown, withinMs: number): DeviceError {
  if (error instanceof DeviceError) return error
  const { cause } = error as { cause?: unknown }
  if (cause instanceof DeviceError) return cause
  if ((error as Error).name === 'TimeoutError')
    return new DeviceError('slow', said('devices.theDeviceDidNotAnswer', withinMs / 1000), error)
  const codes = [cause, error].map((e) => (e as { code?: unknown } | undefined)?.code)
  const code = codes.find((c) => typeof c === 'string') ?? (error as Error).message
  return new DeviceError(
    'offline',
    said('devices.theDeviceCannotBeReached', code.slice(0, 80)),
    error
  )
}
