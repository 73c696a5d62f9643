import { writeFileSync } from 'node:fs'
import { archiveJsonSchema, pieceJsonSchema, recipeJsonSchema } from '#core/format/json-schema'
import { workedExamplesText } from './fixture/worked-doc'

/** Writes the documents that are made from the core; tests keep them equal to it. Run with `npx tsx tests/docs.ts`. */
const at = (name: string) => new URL(`../docs/${name}`, import.meta.url)
writeFileSync(at('piece-file.schema.json'), JSON.stringify(pieceJsonSchema(), null, 2) + '\n')
writeFileSync(at('archive.schema.json'), JSON.stringify(archiveJsonSchema(), null, 2) + '\n')
writeFileSync(at('recipe.schema.json'), JSON.stringify(recipeJsonSchema(), null, 2) + '\n')
writeFileSync(at('worked-examples.md'), workedExamplesText())
