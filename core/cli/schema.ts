import { writeFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { planJsonSchema } from '../formats/testing/planJsonSchema.ts'

/** npm run schema: writes docs/plan.schema.json again. */
writeFileSync(
  fileURLToPath(new URL('../../docs/plan.schema.json', import.meta.url)),
  planJsonSchema()
)
