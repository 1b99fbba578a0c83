import { Failure } from '../../core/errors.ts'

/** A refusal that retrying will not change. */
export class Refused extends Failure {}
