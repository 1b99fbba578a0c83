/** Why a device could not be spoken with, in the words of the Devices place. */
export type TroubleKind =
  'offline' | 'slow' | 'wrong-password' | 'no-account' | 'broken' | 'refused'

export class Trouble extends Error {
  readonly kind: TroubleKind

  constructor(kind: TroubleKind, message: string, cause?: unknown) {
    super(message, { cause })
    this.kind = kind
  }
}

/** What went wrong with a request, as a Trouble. */
export function troubleOf(error: unknown, withinMs: number): Trouble {
  if (error instanceof Trouble) return error
  if ((error as Error).name === 'TimeoutError')
    return new Trouble('slow', `the device did not answer within ${withinMs / 1000} s`, error)
  const code = (
    (error as { cause?: { code?: string } }).cause?.code ?? (error as Error).message
  ).slice(0, 80)
  return new Trouble('offline', `the device cannot be reached (${code})`, error)
}
