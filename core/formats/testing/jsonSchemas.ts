import { toJsonSchema } from '@valibot/to-json-schema'
import type { GenericSchema } from 'valibot'
import { RecordSchema } from '../../handover/record.ts'
import { SiteArchiveSchema } from '../../sites/archive.ts'
import { PlanSchema } from '../plan.ts'

/**
 * A JSON Schema from a Valibot schema. Checks that JSON Schema cannot say (a zone that crosses itself, say) are left out.
 */
function published(title: string, description: string, from: GenericSchema): string {
  const schema = toJsonSchema(from, { errorMode: 'ignore', typeMode: 'input' })
  return `${JSON.stringify({ title, description, ...schema }, null, 2)}\n`
}

/** The JSON Schemas in docs/, by their files. */
export const jsonSchemas = (): Record<string, string> => ({
  'plan.schema.json': published('wardoptic-plan/1', 'See docs/detections.md, Files.', PlanSchema),
  'site.schema.json': published(
    'wardoptic-site/1',
    'site.json of an exported site. See docs/sites.md.',
    SiteArchiveSchema
  ),
  'record.schema.json': published(
    'wardoptic-record/1',
    'record.json of a handover record. See docs/handover.md.',
    RecordSchema
  )
})
