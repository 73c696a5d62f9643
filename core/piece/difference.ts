import { partToFile } from './codec'
import type { Part, Piece } from './piece'
import type { PieceHead } from './schema'
import type { Step } from './step'

type Json = Extract<Step, { type: 'set' }>['before']

const alike = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b)

const sharedBeginning = <T>(a: readonly T[], b: readonly T[], same: (x: T, y: T) => boolean): number => {
  let k = 0
  while (k < a.length && k < b.length && same(a[k]!, b[k]!)) k++
  return k
}

const remove = (part: Part, at: number): Step => ({ type: 'part', do: 'remove', at, value: partToFile(part) })
const insert = (part: Part, at: number): Step => ({ type: 'part', do: 'insert', at, value: partToFile(part) })

/** A piece is never without parts: while all are exchanged, this one stands in. */
const STAND_IN = 'stand-in'

function partSteps(from: readonly Part[], to: readonly Part[]): Step[] {
  const kept = sharedBeginning(from, to, (a, b) => alike(partToFile(a), partToFile(b)))
  const out = from.slice(kept)
  const into = to.slice(kept)
  if (out.length === 0 && into.length === 0) return []
  const exchange = [...out.map((part) => remove(part, kept)), ...into.map((part, k) => insert(part, kept + k))]
  if (kept > 0) return exchange
  const standIn = { ...to[0]!, id: STAND_IN }
  return [insert(standIn, from.length), ...exchange, remove(standIn, to.length)]
}

const HEAD: readonly (keyof PieceHead)[] = ['name', 'notes', 'fit', 'gauges', 'supply', 'cost', 'meant']

/**
 * Steps that make one piece into another, whatever lies between them: fields that differ are set, beads and parts from
 * the first that differs are exchanged. Law: applied to `from` they give `to`.
 */
export function stepsBetween(from: Piece, to: Piece): Step[] {
  const kept = sharedBeginning(from.tray, to.tray, alike)
  return [
    ...HEAD.filter((field) => !alike(from[field], to[field])).map((field): Step => ({
      type: 'set',
      path: [field],
      before: from[field] as Json,
      after: to[field] as Json,
    })),
    ...from.tray.slice(kept).map((bead): Step => ({ type: 'tray', do: 'remove', at: kept, bead })),
    ...to.tray.slice(kept).map((bead, k): Step => ({ type: 'tray', do: 'insert', at: kept + k, bead })),
    ...partSteps(from.parts, to.parts),
  ]
}
