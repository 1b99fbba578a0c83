import { codeText, said, type Said } from './messages/said.ts'

/** Something that did not work, and what is to be said of it. The words are made by whoever shows it. */
export class Failure extends Error {
  /** A text is in the words of whoever it comes from: a device, a mail server. */
  readonly said: Said | string

  constructor(why: Said | string, cause?: unknown) {
    super(codeText(why), { cause })
    this.name = new.target.name
    this.said = why
  }
}

/** Input that cannot be used: the place (a JSON path, a line number, an option) and what is wrong with it. */
export class InputError extends Failure {
  readonly place: string

  constructor(place: string, why: Said | string) {
    super(why)
    this.place = place
    // For logs.
    if (place) this.message = `${place}: ${this.message}`
  }
}

/** What an error says; one that nobody made for people says what its maker wrote. */
export const saidOfError = (error: unknown): Said | string =>
  error instanceof InputError && error.place
    ? said('input.at', error.place, error.said)
    : error instanceof Failure
      ? error.said
      : error instanceof Error
        ? error.message
        : String(error)
