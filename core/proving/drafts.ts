import type { Surroundings } from '../sites/surroundings.ts'
import type { Said } from '../messages/said.ts'
import type { Actions, Endpoint } from '../formats/actions.ts'
import type { About, Check, CheckEffect } from '../formats/check.ts'
import type { Detection } from '../formats/plan.ts'
import type { Walk } from '../formats/walk.ts'
import type { Point } from '../geometry/shapes.ts'
import type { SiteClock } from './moments.ts'
import type { Stage } from './stage.ts'

/** What checks are proposed from. */
export interface Ask {
  detection: Detection
  /** The camera's ignore areas. */
  ignore: readonly (readonly Point[])[]
  actions: Actions
  endpoints: readonly Endpoint[]
  site: SiteClock
  /** Walks are set at or after this instant. */
  from: number
  /** Null: the scene has neither been measured nor is it a simulated one. */
  stage: Stage | null
  /** Whether pictures can be painted there; weather and faults need them. */
  painted: boolean
  /** Where the camera looks; left out: under the sky. */
  surroundings?: Surroundings
  /** A contact's name. */
  inputName: (id: string) => string
}

/** What no check can be proposed for, and why. */
export interface Gap {
  about: About
  side: 'inside' | 'outside'
  words: Said
}

/** A walk without its hour, as the kinds propose it. */
export interface Draft {
  key: string
  name: Said
  about: About
  side?: 'inside' | 'outside'
  walk: Walk
  expect: Check['expect']
  /** Somebody's own instant; left out: well within the armed hours. */
  at?: number | null
  /** Whether the arm input is as it must be; it is, unless said otherwise. */
  unset?: boolean
  effects?: CheckEffect[]
  /** The draft's own light; otherwise it is as the hour has it. */
  keepLight?: boolean
  through?: 'truth' | 'pictures'
}

/** Walks that arrive at a trigger, from which those about hours and outputs are made. */
export interface Main {
  draft: Draft
}

/** What a kind proposes. */
export interface Found {
  drafts: Draft[]
  gaps: Gap[]
  /** Null: nothing that triggers can be walked. */
  main: Main | null
}
