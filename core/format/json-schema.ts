import { z } from 'zod'
import { pieceFileSchema } from '../piece/schema'

/** The JSON Schema (draft 2020-12) of the piece file, made from the one description that reads it. */
export function pieceJsonSchema(): Record<string, unknown> {
  return { ...z.toJSONSchema(pieceFileSchema, { target: 'draft-2020-12', io: 'input' }), title: 'Weben piece file' }
}
