import { z } from 'zod'
import { archiveHead, archiveLine } from '../contract/archive'
import { pieceFileSchema } from '../piece/schema'
import { recipeSchema } from '../recipe/language'

/** The JSON Schema (draft 2020-12) of the piece file, made from the one description that reads it. */
export function pieceJsonSchema(): Record<string, unknown> {
  return { ...z.toJSONSchema(pieceFileSchema, { target: 'draft-2020-12', io: 'input' }), title: 'Weben piece file' }
}

/** The same of a line of an archive that is not a piece. */
export function archiveJsonSchema(): Record<string, unknown> {
  const line = z.union([archiveHead, archiveLine])
  return { ...z.toJSONSchema(line, { target: 'draft-2020-12', io: 'input' }), title: 'A line of a Weben archive' }
}

/** The same of a recipe, as the plan of a piece of one’s own holds it. */
export function recipeJsonSchema(): Record<string, unknown> {
  return { ...z.toJSONSchema(recipeSchema, { target: 'draft-2020-12', io: 'input' }), title: 'A Weben recipe' }
}
