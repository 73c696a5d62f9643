import { z } from 'zod'
import type { Bounds } from './units/number'

/** The schema inside defaults and options. */
function inner(schema: z.ZodType): z.ZodType {
  let now: z.ZodType = schema
  while (now instanceof z.ZodDefault || now instanceof z.ZodOptional || now instanceof z.ZodNullable)
    now = now.unwrap() as z.ZodType
  return now
}

/** The schema of a field of an object, entered by its path; throws for a path that the schema has not. */
function fieldSchema(schema: z.ZodType, ...path: readonly string[]): z.ZodType {
  let now = inner(schema)
  for (const key of path) {
    const next = now instanceof z.ZodObject ? (now.shape as Record<string, z.ZodType>)[key] : undefined
    if (!next) throw new Error(`the schema has no field ${path.join('/')}`)
    now = inner(next)
  }
  return now
}

/**
 * Bounds of a number as the schema that checks it has them, so that a form states nothing twice; throws where the
 * field is no bounded number.
 */
export function boundsOf(schema: z.ZodType, ...path: readonly string[]): Bounds {
  const number = fieldSchema(schema, ...path)
  if (!(number instanceof z.ZodNumber) || number.minValue === null || number.maxValue === null)
    throw new Error(`the schema gives ${path.join('/')} no bounds`)
  return { least: number.minValue, most: number.maxValue, whole: number.isInt }
}
