import { z } from 'zod'
import { bad, good, type Result } from '../../problem'
import { problemsOf, settledSettings } from '../codec'
import { findPart, type Piece } from '../piece'
import { partHeadSchema, pieceHeadSchema, type PieceHead } from '../schema'
import { FIELDS, misfit, same, type StepKind } from './kind'
import type { SetStep } from './schema'

/**
 * Where a field lives: lists are entered by the id of the thing, not its place, so that an edit elsewhere does not
 * move it.
 */
const LIST_ID: Record<string, string> = { tray: 'number', parts: 'id' }

function replaced(value: unknown, path: readonly (string | number)[], step: SetStep, list?: string): unknown {
  if (path.length === 0) return same(value ?? null, step.before ?? null) ? step.after : undefined
  if (typeof value !== 'object' || value === null) return undefined
  const [head, ...rest] = path
  if (Array.isArray(value) && list) {
    const at = value.findIndex((item) => (item as Record<string, unknown>)[list] === head)
    if (at < 0) return undefined
    const next = replaced(value[at], rest, step)
    return next === undefined ? undefined : value.map((item, i) => (i === at ? next : item))
  }
  if (!Object.hasOwn(value, head!)) return undefined
  const next = replaced((value as Record<string, unknown>)[head!], rest, step, LIST_ID[String(head)])
  return next === undefined ? undefined : { ...value, [head!]: next }
}

/**
 * A step on all settings of a part, with what it says was there brought to what is there, where the two mean the same:
 * a step that was kept from before a stitch got one more setting leaves it out.
 */
function whole(piece: Piece, step: SetStep): SetStep {
  const part =
    step.path[0] === 'parts' && step.path[2] === 'settings' && step.path.length === 3
      ? findPart(piece, String(step.path[1]))
      : undefined
  if (!part || !same(settledSettings(part.technique, step.before), settledSettings(part.technique, part.settings)))
    return step
  return { ...step, before: part.settings }
}

/** What other kinds of steps change, or what nothing may change. */
const FORBIDDEN = new Set(['start', 'repeat', 'end', 'columns', 'sizes', 'id', 'number', 'version'])

/** Each field of a piece by itself: only the one that a step changes needs to be looked at. */
const HEAD_FIELDS = Object.fromEntries(
  Object.entries(pieceHeadSchema.shape).map(([field, schema]) => [field, z.strictObject({ [field]: schema })]),
) as unknown as Record<keyof PieceHead, z.ZodType<Partial<PieceHead>>>

function apply(piece: Piece, step: SetStep): Result<Piece> {
  const where = step.path.join('/')
  const inLists = step.path[0] === 'tray' || step.path[0] === 'parts'
  if (inLists ? step.path.length < 3 || FORBIDDEN.has(String(step.path[2])) : false) return bad(misfit(where))
  const next = replaced(piece, step.path, whole(piece, step)) as Piece | undefined
  if (next === undefined) return bad(misfit(where))
  if (step.path[0] !== 'parts') {
    const field = step.path[0] as keyof PieceHead
    const checked = HEAD_FIELDS[field].safeParse({ [field]: next[field] })
    return checked.success ? good({ ...next, ...checked.data }) : bad(...problemsOf(checked.error))
  }
  const part = findPart(next, String(step.path[1]))!
  const { start: _s, repeat: _r, end: _e, sizes: _sizes, held: _held, ...own } = part
  const checked = partHeadSchema.safeParse(own)
  return checked.success ? good(next) : bad(...problemsOf(checked.error))
}

/** Values in a piece of JSON. */
function valuesIn(value: unknown): number {
  let count = 0
  const left = [value]
  while (left.length > 0) {
    const next = left.pop()
    count++
    if (typeof next === 'object' && next !== null) for (const each of Object.values(next)) left.push(each)
  }
  return count
}

/** A field gets another value. */
export const setKind: StepKind<SetStep> = {
  apply,
  invert: (step) => ({ ...step, before: step.after, after: step.before }),
  part: (step) => (step.path[0] === 'parts' ? String(step.path[1]) : null),
  effort: (step) => FIELDS + valuesIn(step.before) + valuesIn(step.after),
}
