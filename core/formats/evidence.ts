import { bool } from '../schema/parts.ts'
import { coded, said } from '../messages/said.ts'
import * as v from 'valibot'
import type { ArmInputs } from '../arming/armInputs.ts'
import { InputError } from '../errors.ts'
import type { Expected } from '../proving/score.ts'
import { parseJson, readJsonLines } from './lines.ts'
import { DIRECTIONS, type Plan } from './plan.ts'
import { parseWith } from '../schema/parse.ts'

/** What is known besides the plan and the targets: arm inputs, and the triggers that are expected. */

const instant = v.pipe(
  v.string(coded('formats.mustBeAnInstantSuch')),
  v.check(
    (text) => /(Z|[+-]\d\d:\d\d)$/.test(text) && !Number.isNaN(Date.parse(text)),
    coded('formats.mustBeAnInstantWith')
  )
)
const InputsSchema = v.record(
  v.string(),
  v.array(v.strictObject({ at: instant, set: bool }), coded('formats.mustBeAListOf13'))
)

/**
 * Reads `{"panel": [{"at": ISO, "set": true}]}`; the changes may come in any order.
 * @throws InputError with the path
 */
export function readArmInputs(text: string): ArmInputs {
  const inputs = parseWith(InputsSchema, parseJson(text, '$'))
  return Object.fromEntries(
    Object.entries(inputs).map(([id, changes]) => [
      id,
      changes.map(({ at, set }) => ({ at: Date.parse(at), set })).sort((a, b) => a.at - b.at)
    ])
  )
}

const seconds = (most: number) => {
  const right = coded('formats.mustBeSecondsFrom0', most)
  return v.pipe(v.number(right), v.finite(right), v.minValue(0, right), v.maxValue(most, right))
}
const ExpectedSchema = v.strictObject({
  detection: v.string(coded('formats.mustBeTheIdOf2')),
  time: seconds(1e7),
  direction: v.optional(
    v.picklist(
      DIRECTIONS.slice(0, 2) as ['leftToRight', 'rightToLeft'],
      coded('input.mustBeLefttorightOrRighttoleft')
    )
  ),
  within: v.optional(seconds(3600)),
  early: v.optional(seconds(3600))
})

/** Reads expected triggers as JSON lines. @throws InputError with the line and what would be right */
export function readExpected(text: string, plan: Plan, camera: string): Expected[] {
  const known = plan.cameras.find((c) => c.id === camera)?.detections.map((d) => d.id) ?? []
  return readJsonLines(text, ExpectedSchema, ({ detection }) => {
    if (!known.includes(detection))
      throw new InputError('$.detection', said('formats.isNotIn', detection, known.join(', ')))
  })
}
