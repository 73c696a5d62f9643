import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyPieceOf, part, piece } from '../../tests/fixture/piece'
import { cellsFrom, emptyCells } from '../grid/cells'
import { loadingCells, loadingRounds, LOADINGS } from '../pattern/loading'
import { layingSteps } from '../piece/edit'
import { columnsOf, numberAt, rowsOf } from '../piece/piece'
import { applySteps } from '../piece/step'
import { valueOf } from '../problem'
import { beadAt, roundSurface, spotOf } from '../technique/braid/surface'
import { requireTechnique } from '../technique/registry'
import { tallyPart, totalOf } from './tally'
import { placeOfSlot, readStrand, strandLists, strandWords, unevenStrands } from './strand'

const BRAIDS = ['braid-8', 'braid-12', 'braid-16'] as const
const braid = (flat: number[], school: 'A' | 'B' = 'A', columns = 8) =>
  piece({
    parts: [
      part({
        technique: `braid-${columns}`,
        settings: requireTechnique(`braid-${columns}`).settings.parse({ school }),
        spec: 'round-8',
        start: emptyCells(columns, 0),
        repeat: cellsFrom(columns, flat.length / columns, flat),
        end: emptyCells(columns, 0),
        times: 1,
      }),
    ],
  })

describe('strand lists', () => {
  it('say what to string, by bobbin, slot and side of the disc', () => {
    const p = braid([1, 2, 1, 1, 1, 1, 1, 1, 1, 2, 1, 1, 1, 1, 1, 1, 3, 2, 1, 1, 1, 1, 1, 1])
    const lists = strandLists(p.parts[0]!)
    expect(lists.slice(0, 2).map((l) => [l.bobbin, l.slot, l.place, strandWords(l, p.tray), l.beads])).toEqual([
      [1, 1, 'top right', '2A 1C', 3],
      [2, 8, 'right upper', '3B', 3],
    ])
    expect(lists.map((l) => l.slot)).toEqual([1, 8, 9, 16, 17, 24, 25, 32])
    expect(strandWords(lists[0]!, p.tray, true)).toBe('1C 2A')
    // as the words of the moves have it: 17 is bottom left, whichever way one counts
    expect([32, 1, 8, 9, 16, 17, 24, 25].map((slot) => placeOfSlot(slot, 32))).toEqual([
      'top left',
      'top right',
      'right upper',
      'right lower',
      'bottom right',
      'bottom left',
      'left lower',
      'left upper',
    ])
    for (const slots of [8, 32, 48]) {
      for (let slot = 1; slot <= slots; slot++) {
        const angle = ((slot - 0.5) / slots) * 2 * Math.PI
        const [side, half] = placeOfSlot(slot, slots).split(' ')
        const words = `${side} ${half}`
        if (Math.abs(Math.sin(angle)) > 0.2) expect(words.includes(Math.sin(angle) > 0 ? 'right' : 'left')).toBe(true)
        expect(
          words.includes(Math.cos(angle) > 0 ? 'lower' : 'upper') ||
            words.includes(Math.cos(angle) > 0 ? 'bottom' : 'top'),
        ).toBe(false)
      }
    }
  })
  it('painting the surface and reading the strands back gives the same surface, in both schools', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(8, 12, 16),
        fc.constantFrom('A' as const, 'B' as const),
        fc.integer({ min: 1, max: 40 }),
        fc.infiniteStream(fc.integer({ min: 1, max: 3 })),
        (n, school, rounds, stream) => {
          // A surface: a colour for every place (row, col) that holds a bead.
          const surface = new Map<string, number>()
          const flat = new Array<number>(n * rounds).fill(0)
          for (let row = 0; row < (rounds * n) / 2; row++) {
            for (let col = 0; col < n / 2; col++) {
              const bead = beadAt({ row, col }, n, school)
              if (!bead) continue
              const number = stream.next().value as number
              surface.set(`${row}/${col}`, number)
              flat[bead.k * n + bead.s] = number
            }
          }
          const p = braid(flat, school, n)
          // The strands as lists, strung anew, lie as the surface again.
          for (const { bobbin, runs } of strandLists(p.parts[0]!)) {
            let k = 0
            for (const run of runs) {
              for (let i = 0; i < run.count; i++, k++) {
                const { row, col } = spotOf(bobbin - 1, k, n, school)
                expect(run.number).toBe(surface.get(`${row}/${col}`))
              }
            }
          }
        },
      ),
    )
  })
  it('typed and read back are the same; a wrong count names the strand and by how many', () => {
    fc.assert(
      fc.property(anyPieceOf(BRAIDS), fc.integer({ min: 1, max: 8 }), (p, bobbin) => {
        const one = p.parts[0]!
        if (one.repeat.rows === 0 || one.times === 0) return
        const words = strandWords(strandLists(one, 'repeat')[bobbin - 1]!, p.tray)
        const laying = valueOf(readStrand(p, one, 'repeat', bobbin, words))
        expect(layingSteps(one, laying)).toEqual([])
        const other = valueOf(
          applySteps(p, layingSteps(one, valueOf(readStrand(p, one, 'repeat', bobbin, `${one.repeat.rows}B`)))),
        )
        expect(strandWords(strandLists(other.parts[0]!, 'repeat')[bobbin - 1]!, p.tray)).toBe(`${one.repeat.rows}B`)
        const wrong = readStrand(p, one, 'repeat', bobbin, `${one.repeat.rows + 2}A`)
        expect(wrong.ok ? '' : wrong.problems[0]!.says).toContain(
          `Strand ${bobbin} has ${one.repeat.rows + 2} beads, 2 more`,
        )
        expect(readStrand(p, one, 'repeat', bobbin, '3Q').ok).toBe(false)
      }),
    )
  })
  it('names the strand that is off', () => {
    const p = braid([1, 1, 1, 1, 1, 1, 1, 1, 1, 0, 1, 1, 1, 1, 1, 1])
    expect(unevenStrands(strandLists(p.parts[0]!))).toEqual([{ bobbin: 2, more: -1 }])
    expect(unevenStrands([])).toEqual([])
  })
  it('hold every bead of the part once', () => {
    fc.assert(
      fc.property(anyPieceOf(BRAIDS), (p) => {
        expect(strandLists(p.parts[0]!).reduce((sum, l) => sum + l.beads, 0)).toBe(totalOf(tallyPart(p.parts[0]!)))
      }),
    )
  })
})

describe('loadings', () => {
  it('repeat without a break after their rounds, in both schools', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...LOADINGS.map((l) => l.id)),
        fc.constantFrom(8, 12, 16),
        fc.constantFrom('A' as const, 'B' as const),
        fc.integer({ min: 1, max: 6 }),
        (loading, n, school, along) => {
          const wish = { loading, numbers: [1, 2, 3], along }
          const rope = roundSurface(n, school, {})
          const rounds = loadingRounds(wish, rope)
          const flat = loadingCells(wish, 3 * rounds, n, rope)
          for (let key = 0; key < 2 * rounds * n; key++) expect(flat[key]).toBe(flat[key + rounds * n])
        },
      ),
    )
  })
  it('rings are eight beads round; flowers are a centre with six petals', () => {
    const rope = roundSurface(8, 'A', {})
    expect(loadingCells({ loading: 'rings', numbers: [1, 2], along: 1 }, 2, 8, rope)).toEqual([
      ...Array<number>(8).fill(1),
      ...Array<number>(8).fill(2),
    ])
    const flat = loadingCells({ loading: 'flowers', numbers: [1, 2, 3], along: 6 }, 60, 8, rope)
    const inside = flat.slice(8 * 6, 8 * 54)
    expect(inside.filter((n) => n === 2).length / inside.filter((n) => n === 3).length).toBeCloseTo(6, 0)
  })
})

describe('the braid as any technique', () => {
  it('40 beads of 8/0 on each of eight strands are about 6 inches (common practice)', () => {
    const t = requireTechnique('braid-8')
    const work = {
      columns: 8,
      rows: 40,
      bead: { id: 'round-8', shape: 'round' as const, name: 'round 8/0', d: 3, l: 2.1, h: 1.1, perGram: 39 },
      settings: t.settings.parse({}),
    }
    expect(t.growth.lengthOf(work) / 25.4).toBeCloseTo(6, 1)
    expect(t.extent(work).thicknessMm).toBeCloseTo(2.9 * 3, 9)
    // cords for a 7-inch round braid: 21 inches and 3–4 more each (common practice)
    const seven = t.path({
      ...work,
      settings: t.settings.parse({ plainMm: 0 }),
      rows: Math.round(t.growth.rowsFor(7 * 25.4, work)),
    }).runs[0]!
    expect(seven.count).toBe(8)
    expect(seven.lengthMm / 25.4).toBeGreaterThanOrEqual(24)
    expect(seven.lengthMm / 25.4).toBeLessThanOrEqual(25.2)
  })
  it('columns are strands: another count across is refused with words', () => {
    expect(requireTechnique('braid-8').check({ columns: 7, rows: 3, settings: {} })[0]!.says).toContain('Take 8.')
    expect(columnsOf(braid(Array<number>(8).fill(1)).parts[0]!)).toBe(8)
    expect(numberAt(braid(Array<number>(16).fill(2)).parts[0]!, 3, 1)).toBe(2)
    expect(rowsOf(braid(Array<number>(16).fill(2)).parts[0]!)).toBe(2)
  })
})
