/**
 * Input that cannot be used. The message names the place and what would be right, in words for people;
 * `place` is the same place for a program (a JSON path, a line number, an option).
 */
export class InputError extends Error {
  readonly place: string

  constructor(place: string, message: string) {
    super(place ? `${place}: ${message}` : message)
    this.name = 'InputError'
    this.place = place
  }
}
