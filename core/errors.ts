import { codeText, said, saidOf, type Said } from './messages/said.ts'

/** Something that did not work, and what is to be said of it. The words are made by whoever shows it. */
export class Failure extends Error {
  /** A text is in the words of whoever it comes from: a device, a mail server. */
  readonly said: Said | string
  /**
   * Where, of input: a JSON path, a line number, an option, a parameter of the address, or what a code says (`coded`);
   * empty: of no place.
   */
  readonly place: string

  constructor(why: Said | string, cause?: unknown, place = '') {
    // For logs.
    super(place ? `${codeText(saidOf(place))}: ${codeText(why)}` : codeText(why), { cause })
    this.name = new.target.name
    this.said = why
    this.place = place
  }
}

/** Input that cannot be used: the place and what is wrong with it. */
export class InputError extends Failure {
  constructor(place: string, why: Said | string) {
    super(why, undefined, place)
  }
}

/** What an error says; one that nobody made for people says what its maker wrote. */
export const saidOfError = (error: unknown): Said | string =>
  error instanceof Failure
    ? error.place
      ? said('input.at', saidOf(error.place), error.said)
      : error.said
    : error instanceof Error
      ? error.message
      : String(error)
