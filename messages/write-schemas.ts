import { writeFileSync } from 'node:fs'
import { publishedSchemas } from './published-schemas'

/** Writes the JSON Schemas of the file formats into docs/schemas: `npm run schemas`. A test holds them to the code. */
for (const [name, schema] of Object.entries(publishedSchemas))
  writeFileSync(`docs/schemas/${name}.schema.json`, `${JSON.stringify(schema, null, 2)}\n`)
