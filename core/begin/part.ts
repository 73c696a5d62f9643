import { cellsFrom, emptyCells } from '../grid/cells'
import { raggedFrom } from '../grid/lines'
import type { Part } from '../piece/piece'
import type { Joint } from '../piece/schema'
import { RING_MM, type AbovePart } from '../technique/begins'
import { requireTechnique } from '../technique/registry'

/** How a part hangs below another: sewn on, middle to middle; or by a ring at each of the places named, from 1. */
export const hungBelow = (part: string, ringsAt: readonly number[] = []): Joint => ({
  part,
  at: 'end',
  by: 'start',
  holes: [...ringsAt],
  link: ringsAt.length > 0 ? { kind: 'ring', mm: RING_MM } : null,
})

/**
 * A part as it is told before there is a piece: rows of a grid, or lines of their own lengths; `numberAt`: the tray
 * number of a bead by its place on the tray, from 1.
 */
export function firstPart(
  { technique, name, settings, rows }: AbovePart,
  id: string,
  spec: string,
  numberAt: (place: number) => number,
): Part {
  const t = requireTechnique(technique)
  const head = { id, name, technique, settings: t.settings.parse(settings), spec, on: null }
  const numbers = rows.map((row) => row.map((place) => (place === 0 ? 0 : numberAt(place))))
  if (t.firstLines)
    return {
      ...head,
      times: rows.length > 0 ? 1 : 0,
      ...(t.plan ? { plan: t.plan.parse({}) } : {}),
      start: raggedFrom([]),
      repeat: raggedFrom(numbers),
      end: raggedFrom([]),
    }
  const columns = Math.max(1, ...rows.map((row) => row.length))
  return {
    ...head,
    times: 1,
    start: emptyCells(columns, 0),
    repeat: cellsFrom(columns, rows.length, numbers.flat()),
    end: emptyCells(columns, 0),
  }
}
