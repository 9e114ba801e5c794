import { readFileSync } from 'node:fs'
import { expect, it } from 'vitest'
import { publishedSchemas } from './published-schemas'

it.each(Object.entries(publishedSchemas))(
  'the published schema of a %s file is the one the program reads by',
  (name, schema) => {
    expect(JSON.parse(readFileSync(`docs/schemas/${name}.schema.json`, 'utf8'))).toEqual(schema)
  },
)
