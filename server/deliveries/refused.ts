import { Failure } from '../../core/errors.ts'

/** What will not become better by being tried again. */
export class Refused extends Failure {}
