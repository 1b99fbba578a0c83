import { writeFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { jsonSchemas } from '../formats/testing/jsonSchemas.ts'

/** npm run schema: writes the JSON Schemas in docs/ again. */
for (const [file, schema] of Object.entries(jsonSchemas()))
  writeFileSync(fileURLToPath(new URL(`../../docs/${file}`, import.meta.url)), schema)
