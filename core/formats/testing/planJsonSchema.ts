import { toJsonSchema } from '@valibot/to-json-schema'
import { PlanSchema } from '../plan.ts'

/**
 * The plan's JSON Schema, from the Valibot schemas. Checks that JSON Schema cannot say (a zone that
 * crosses itself, say) are left out.
 */
export function planJsonSchema(): string {
  const schema = toJsonSchema(PlanSchema, { errorMode: 'ignore', typeMode: 'input' })
  return `${JSON.stringify({ title: 'wardoptic-plan/1', description: 'See docs/detections.md, Files.', ...schema }, null, 2)}\n`
}
