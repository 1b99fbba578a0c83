/** A device's refusal, with the standard's code. */
export class Refusal extends Error {
  readonly code: string

  constructor(code: string, reason: string) {
    super(reason)
    this.code = code
  }
}
