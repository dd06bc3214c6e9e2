import { writeFileSync } from 'node:fs'
import { folioFileJsonSchema } from '../shared/folioFile'

/** The JSON Schema of folio files, made from what reads them. */
writeFileSync('docs/folio-file.schema.json', `${JSON.stringify(folioFileJsonSchema(), null, 2)}\n`)
