/** Why a device could not be spoken with, in the words of the Devices place. */
export type DeviceErrorKind =
  'offline' | 'slow' | 'wrong-password' | 'no-account' | 'broken' | 'refused'

export class DeviceError extends Error {
  readonly kind: DeviceErrorKind

  constructor(kind: DeviceErrorKind, message: string, cause?: unknown) {
    super(message, { cause })
    this.kind = kind
  }
}

/** What went wrong with a request, as a DeviceError. */
export function deviceErrorOf(error: unknown, withinMs: number): DeviceError {
  if (error instanceof DeviceError) return error
  if ((error as Error).name === 'TimeoutError')
    return new DeviceError('slow', `the device did not answer within ${withinMs / 1000} s`, error)
  const code = (
    (error as { cause?: { code?: string } }).cause?.code ?? (error as Error).message
  ).slice(0, 80)
  return new DeviceError('offline', `the device cannot be reached (${code})`, error)
}
