import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyPiece, anyPieceOf, part, rows } from '../../tests/fixture/piece'
import { keyOf } from '../grid/key'
import { layingSteps } from '../piece/edit'
import { columnsOf, isInside, numberAt, rowsOf, SECTIONS, type Part } from '../piece/piece'
import { neighbourOffsets } from '../technique/lattice'
import { boxBetween, clampBox, copyClip, fillBox, mirrorBox, pasteClip } from './clip'
import { MOTIFS, motifCells } from './motif'
import { floodFrom, lineBetween, runBetween, wholeRow } from './place'
import { latticeOf } from '../piece/drawing'

/** A place that has a bead, near the wanted one. */
const anyPlaceIn = (p: Part, x: number, y: number) => {
  const at = { c: x % columnsOf(p), r: y % rowsOf(p) }
  return isInside(p, at) ? at : { c: 1, r: at.r }
}
const anyWork = anyPiece
  .map((p) => p.parts[0]!)
  .filter((p) => isInside(p, { c: 1, r: rowsOf(p) - 1 }) || (rowsOf(p) > 0 && columnsOf(p) === 1))

describe('lines', () => {
  it('begin and end where they should, go over touching beads and hold each once', () => {
    fc.assert(
      fc.property(anyWork, fc.nat(), fc.nat(), fc.nat(), fc.nat(), (p, a, b, c, d) => {
        const from = anyPlaceIn(p, a, b)
        const to = anyPlaceIn(p, c, d)
        const line = lineBetween(p, from, to)
        expect(line[0]).toEqual(from)
        expect(line.at(-1)).toEqual(to)
        expect(new Set(line.map((q) => `${q.c},${q.r}`)).size).toBe(line.length)
        // Where the lattice itself says what touches, cells that touch need not be numbered side by side.
        if (latticeOf(p).touching) return
        for (let i = 1; i < line.length; i++) {
          expect(Math.abs(line[i]!.c - line[i - 1]!.c)).toBeLessThanOrEqual(1)
          expect(Math.abs(line[i]!.r - line[i - 1]!.r)).toBeLessThanOrEqual(1)
        }
      }),
    )
  })
})

describe('lines that once went wrong', () => {
  it('on a rope, at an end, they come to rest where they should', () => {
    const ropes = anyPieceOf(['braid-own', 'braid-7', 'braid-8', 'braid-16', 'braid-cord', 'coil'])
      .map((p) => p.parts[0]!)
      .filter((p) => rowsOf(p) > 0)
    fc.assert(
      fc.property(ropes, fc.nat(), fc.nat(), fc.nat(), fc.nat(), (p, a, b, c, d) => {
        const [from, to] = [anyPlaceIn(p, a, b), anyPlaceIn(p, c, d)]
        const line = lineBetween(p, from, to)
        expect([line[0], line.at(-1)]).toEqual([from, to])
        expect(line.every((q) => isInside(p, q))).toBe(true)
      }),
      { numRuns: 300 },
    )
  })
  it('along the staggered edge of a single bead row, no column is skipped', () => {
    const p = part({ start: rows('AAAA'), repeat: rows('AAAA'), end: rows('AAAA'), times: 0 })
    expect(
      lineBetween({ ...p, end: { columns: 4, rows: 0, blocks: [] } }, { c: 0, r: 0 }, { c: 2, r: 0 }).map((q) => q.c),
    ).toEqual([0, 1, 2])
  })
  it('a diagonal over a loomed band is one bead wide', () => {
    const p = part({
      technique: 'loom',
      settings: {},
      start: rows('AAAAA'),
      repeat: rows('AAAAA'),
      end: rows('AAAAA'),
      times: 3,
    })
    expect(lineBetween(p, { c: 4, r: 0 }, { c: 0, r: 4 }).map((q) => `${q.c}${q.r}`)).toEqual([
      '40',
      '31',
      '22',
      '13',
      '04',
    ])
  })
})

describe('runs', () => {
  it('stay in one working row and hold its beads between two places', () => {
    const p = part({ repeat: rows('AAAAAAAA', 'AAAAAAAA'), start: rows('AAAAAAAA'), end: rows('AAAAAAAA') })
    expect(runBetween(p, { c: 0, r: 2 }, { c: 5, r: 4 }).map((q) => `${q.c},${q.r}`)).toEqual(['0,2', '2,2', '4,2'])
    expect(runBetween(p, { c: 7, r: 1 }, { c: 2, r: 0 }).map((q) => `${q.c},${q.r}`)).toEqual(['7,1', '5,1', '3,1'])
    expect(wholeRow(p, { c: 0, r: 0 })).toHaveLength(8)
  })
})

describe('flood', () => {
  it('equals a slow fill that asks every bead for its neighbours', () => {
    fc.assert(
      fc.property(anyWork, fc.nat(), fc.nat(), (p, a, b) => {
        const at = anyPlaceIn(p, a, b)
        const lattice = latticeOf(p)
        const wanted = numberAt(p, at.c, at.r)
        const slow = new Set<string>()
        const visit = (at: number, r: number) => {
          const c = lattice.round ? (at + columnsOf(p)) % columnsOf(p) : at
          if (!isInside(p, { c, r }) || slow.has(`${c},${r}`) || numberAt(p, c, r) !== wanted) return
          slow.add(`${c},${r}`)
          for (const o of neighbourOffsets(lattice, c, r)) visit(c + o.c, r + o.r)
        }
        visit(at.c, at.r)
        expect(
          Array.from(floodFrom(p, at), (k) => `${k % columnsOf(p)},${Math.floor(k / columnsOf(p))}`).sort(),
        ).toEqual([...slow].sort())
      }),
    )
  })
  it('outside the work fills nothing', () => expect([...floodFrom(part(), { c: -1, r: 0 })]).toEqual([]))
})

const after = (p: Part, laying: ReadonlyMap<number, number>) => ({
  number: (c: number, r: number) => laying.get(keyOf(columnsOf(p), c, r)) ?? numberAt(p, c, r),
})

describe('boxes', () => {
  it('copied and pasted in place change nothing', () => {
    fc.assert(
      fc.property(anyWork, fc.nat(), fc.nat(), fc.nat(), fc.nat(), (p, a, b, c, d) => {
        const box = boxBetween(anyPlaceIn(p, a, b), anyPlaceIn(p, c, d))
        expect(layingSteps(p, pasteClip(p, copyClip(p, box), box))).toEqual([])
      }),
    )
  })
  it('mirrored twice are as before', () => {
    fc.assert(
      fc.property(
        anyWork,
        fc.constantFrom('across' as const, 'along' as const),
        fc.nat(),
        fc.nat(),
        fc.nat(),
        fc.nat(),
        (p, way, a, b, c, d) => {
          const box = boxBetween(anyPlaceIn(p, a, b), anyPlaceIn(p, c, d))
          const once = after(p, mirrorBox(p, box, way))
          const columns = columnsOf(p)
          const flat = Array.from({ length: columns * rowsOf(p) }, (_, i) =>
            once.number(i % columns, Math.floor(i / columns)),
          )
          const empty = { columns, rows: 0, blocks: [] }
          const mirrored: Part = {
            ...p,
            start: { columns, rows: rowsOf(p), blocks: [] },
            repeat: empty,
            end: empty,
            times: 0,
          }
          const again = { ...mirrored, start: { ...mirrored.start, blocks: chunk(flat, columns) } }
          const twice = after(again, mirrorBox(again, box, way))
          for (let r = 0; r < rowsOf(p); r++)
            for (let q = 0; q < columns; q++) expect(twice.number(q, r)).toBe(numberAt(p, q, r))
        },
      ),
    )
  })
  it('are clamped to the work, and what falls outside a paste is left out', () => {
    const p = part()
    expect(clampBox(p, { c: -2, r: -2, columns: 4, rows: 4 })).toEqual({ c: 0, r: 0, columns: 2, rows: 2 })
    expect(clampBox(p, { c: 9, r: 0, columns: 2, rows: 2 })).toBeNull()
    expect(pasteClip(p, { columns: 2, rows: 1, numbers: [1, 2], c: 0, r: 0 }, { c: 3, r: 0 }).size).toBe(1)
    expect(fillBox(p, { c: 0, r: 0, columns: 2, rows: 3 }, 2).size).toBe(6)
  })
})

function chunk(flat: number[], columns: number): Uint16Array[] {
  const out: Uint16Array[] = []
  for (let i = 0; i < flat.length; i += 64 * columns) out.push(Uint16Array.from(flat.slice(i, i + 64 * columns)))
  return out
}

describe('edits in a repeat', () => {
  it('show in every copy and nowhere else', () => {
    const p = part({ times: 4 })
    const steps = layingSteps(p, new Map([[keyOf(4, 1, 3), 3]]))
    expect(steps).toEqual([{ type: 'cells', part: 'band', section: 'repeat', patches: [[1, 1, 2, 3]] }])
    expect(SECTIONS).toContain(steps[0]!.section)
  })
})

describe('motifs to begin with', () => {
  it.each(MOTIFS.map((m) => m.id))('%s uses only beads of the tray and is mirrored about the length', (id) => {
    for (const technique of ['loom', 'peyote']) {
      const p = part({ technique, settings: {} })
      const cells = motifCells(id, latticeOf(p), 13, [1, 2, 3, 4])
      for (const block of cells.blocks) for (const n of block) expect([1, 2, 3, 4]).toContain(n)
      const flat = cells.blocks.flatMap((b) => [...b])
      for (let r = 0; r < cells.rows; r++)
        for (let c = 0; c < 13; c++) expect(flat[r * 13 + c]).toBe(flat[r * 13 + 12 - c])
    }
  })
  it.each(MOTIFS.map((m) => m.id))('%s goes round a tube without a seam: alike about its first column', (id) => {
    for (const [technique, columns] of [
      ['peyote-tube', 16],
      ['brick-tube', 15],
    ] as const) {
      const lattice = latticeOf(part({ technique, settings: {} }))
      const flat = motifCells(id, lattice, columns, [1, 2, 3, 4]).blocks.flatMap((b) => [...b])
      for (let r = 0; r < flat.length / columns; r++) {
        // Every second row of brick lies half a bead aside: its first bead is alike its last.
        const fellow = (c: number) =>
          technique === 'brick-tube' && r % 2 === 1 ? columns - 1 - c : (columns - c) % columns
        for (let c = 0; c < columns; c++)
          expect([technique, r, c, flat[r * columns + c]]).toEqual([technique, r, c, flat[r * columns + fellow(c)]])
      }
    }
  })
})
