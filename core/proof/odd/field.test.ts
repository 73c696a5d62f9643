import { describe, expect, it } from 'vitest'
import { cellsFrom, emptyCells } from '../../grid/cells'
import { modulo } from '../../modulo'
import { latticeOf } from '../../piece/drawing'
import { ropeOf } from '../../piece/nature'
import type { GridPart } from '../../piece/piece'
import { beadCentre } from '../../technique/lattice'
import { TECHNIQUES } from '../../technique/registry'
import { cellAt, fieldFrom, hasField, VOID, type Field } from './field'

const ROWS = 8

/** A part of a technique as wide as it allows near twelve, and its field. */
function fieldFor(id: string): { readonly part: GridPart; readonly field: Field } {
  const technique = TECHNIQUES.find((t) => t.id === id)!
  const settings = technique.settings.parse({})
  const columns = technique.disc
    ? technique.growth.nearestColumns(8, settings)
    : technique.growth.nearestColumns(12, settings)
  const none = emptyCells(columns, 0)
  const flat = Array.from({ length: columns * ROWS }, (_, k) => 1 + (k % 3))
  const part = {
    ...{ id: 'band', name: 'Band', technique: id, settings, spec: 'cylinder-11', times: 1, on: null },
    ...{ start: none, end: none, repeat: cellsFrom(columns, ROWS, flat) },
  } as GridPart
  const colour = Uint16Array.from(flat)
  for (const key of technique.voids?.({ columns, rows: ROWS, settings }) ?? []) colour[key] = VOID
  return { part, field: fieldFrom(part, colour)! }
}

const GRIDS = TECHNIQUES.filter((t) => t.store === 'cells' && hasField(fieldFor(t.id).part)).map(({ id }) => id)
/** Lattices whose beads stand in fives and fours, or turned: they are read by their places in the grid. */
const BY_INDEX = GRIDS.filter((id) => latticeOf(fieldFor(id).part).touching !== undefined)
const STRAIGHT_OR_STAGGERED = GRIDS.filter((id) => !BY_INDEX.includes(id) && !ropeOf(fieldFor(id).part))

describe('the field of every grid technique', () => {
  it('is of them all', () => {
    expect(GRIDS.length).toBeGreaterThan(10)
    expect(STRAIGHT_OR_STAGGERED.length).toBeGreaterThan(6)
  })

  it.each(GRIDS)('%s: each bead has a place of its own, and is found there', (id) => {
    const { field } = fieldFor(id)
    const places = new Set<string>()
    for (let k = 0; k < field.colour.length; k++) {
      if (field.colour[k] === VOID) continue
      expect(cellAt(field, field.X[k]!, field.Y[k]!)).toBe(k)
      places.add(`${field.X[k]} ${field.Y[k]}`)
    }
    expect(places.size).toBe(field.colour.filter((v) => v !== VOID).length)
  })

  it.each(GRIDS)('%s: a row further on is so many steps along, wherever it is', (id) => {
    const { field } = fieldFor(id)
    const { columns, rowStep, X, Y } = field
    // Rows that lie aside in turns come again after two.
    const on = 2
    for (let k = 0; k + on * columns < X.length; k++)
      expect([X[k + on * columns]! - X[k]!, Y[k + on * columns]! - Y[k]!]).toEqual([0, on * rowStep])
  })

  it.each(STRAIGHT_OR_STAGGERED)('%s: steps are as long as the lattice draws them', (id) => {
    const { part, field } = fieldFor(id)
    const lattice = latticeOf(part)
    const { columns, X, Y } = field
    const centres = Array.from(X, (_, k) => beadCentre(lattice, k % columns, Math.floor(k / columns)))
    // One step across and one along, mm, by three beads that are not in one line.
    const far = columns * (ROWS - 2)
    const [o, along] = [centres[0]!, { y: (centres[far]!.y - centres[0]!.y) / (Y[far]! - Y[0]!) }]
    const across = (centres[columns - 1]!.x - o.x) / (X[columns - 1]! - X[0]!)
    for (let k = 0; k < X.length; k++) {
      expect(centres[k]!.x).toBeCloseTo(o.x + across * (X[k]! - X[0]!), 6)
      // A tube climbs by a part of a row with every column: to the nearest step it is the same.
      const steps = (centres[k]!.y - o.y) / along.y
      expect(Math.abs(steps - (Y[k]! - Y[0]!))).toBeLessThanOrEqual(lattice.round ? 1 + 1e-6 : 1e-6)
    }
  })

  it('goes round a tube to the same place', () => {
    for (const id of GRIDS) {
      const { field } = fieldFor(id)
      if (field.wrap.x === 0) continue
      for (let k = 0; k < field.X.length; k += 5) {
        const y = field.Y[k]! + field.wrap.y
        if (y < 0 || y >= field.spanY || field.colour[k] === VOID) continue
        expect([id, cellAt(field, field.X[k]! + field.wrap.x, y)]).toEqual([id, k])
      }
      expect(modulo(field.wrap.x, 1)).toBe(0)
    }
  })
})
