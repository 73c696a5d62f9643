import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { ANY_IDS, anyPiece, anyPieceOf, part, rows, piece } from '../../tests/fixture/piece'
import { emptyCells } from '../grid/cells'
import { keyOf } from '../grid/key'
import { layingSteps } from '../piece/edit'
import { columnsOf, isInside, numberAt, rowsOf, type Part } from '../piece/piece'
import { applySteps } from '../piece/step'
import { valueOf } from '../problem'
import { requireTechnique, TECHNIQUES } from '../technique/registry'
import { borderIn } from './border'
import { LEAVE, pasteClip, repeatBox, shiftBox, turnBox, moveBox } from './clip'
import type { Box } from '../technique/lattice'
import { FIGURES, figureIn, figurePeriod, figureRows, turning } from './generate'
import { gradientIn } from './gradient'
import { letter, signRows } from './letters'
import { letteringIn } from './lettering'
import { latticeOf } from '../piece/drawing'
import { SYMMETRIES, symmetryOf, withImages, type SymmetryKind } from './symmetry'

const blank = (technique: string, columns: number, height: number): Part => {
  const settings = requireTechnique(technique).settings.parse({})
  const none = emptyCells(columns, 0)
  return part({ technique, settings, start: none, repeat: emptyCells(columns, height, 1), end: none, times: 1 })
}
const whole = (p: Part): Box => ({ c: 0, r: 0, columns: columnsOf(p), rows: rowsOf(p) })
const drawn = (p: Part, laying: ReadonlyMap<number, number>) =>
  Array.from({ length: rowsOf(p) }, (_, r) =>
    Array.from({ length: columnsOf(p) }, (_, c) => laying.get(keyOf(columnsOf(p), c, r)) ?? numberAt(p, c, r)).join(
      '',
    ),
  )

describe('figures', () => {
  it('a diamond on nine-bead rows in five colours: rows begin 1 2 3 4 5 4 3 2, then 1 again (common practice)', () => {
    const p = blank('loom', 9, 9)
    const lines = drawn(p, figureIn(p, whole(p), { figure: 'diamond', sequence: [1, 2, 3, 4, 5] }))
    expect(lines.map((l) => l[0]).join('')).toBe('123454321')
    expect(lines[0]).toBe('123454321')
    expect(lines[1]).toBe('234545432')
    expect(lines[4]).toBe('543212345')
    expect(figurePeriod({ figure: 'diamond', sequence: [1, 2, 3, 4, 5] })).toBe(8)
  })
  it('turning places are single: a turn of k is 2 k − 2 long', () => {
    fc.assert(
      fc.property(fc.integer({ min: 2, max: 30 }), fc.integer({ min: -200, max: 200 }), (k, n) => {
        expect(turning(n, k)).toBe(turning(n + 2 * k - 2, k))
        expect(turning(n, k)).toBe(turning(-n, k))
        expect(Math.abs(turning(n + 1, k) - turning(n, k))).toBe(1)
      }),
    )
  })
  it('a chevron is the same sequence shifted one place every row, mirrored about the middle', () => {
    const p = blank('loom', 7, 4)
    expect(drawn(p, figureIn(p, whole(p), { figure: 'chevron', sequence: [1, 2, 3] }))).toEqual([
      '1231321',
      '2312132',
      '3123213',
      '1231321',
    ])
  })
  it(
    'in peyote a diagonal runs from bead to touching bead, and a diamond of five colours is eight beads of a ' +
      'column',
    () => {
      const p = blank('peyote-odd', 9, 16)
      const wish = { figure: 'diamond' as const, sequence: [1, 2, 3, 4, 5] }
      expect(figureRows(latticeOf(p), wish)).toBe(8)
      const lines = drawn(p, figureIn(p, whole(p), wish))
      for (const line of lines) expect([...line].reverse().join('')).toBe(line)
      // Down one column, then the bead that touches below it at either side: one colour further toward the middle.
      expect(lines.map((l) => l[0]).join('')).toBe('1234543212345432')
      expect([0, 1, 2, 3, 4].map((c) => lines[Math.floor((8 - c) / 2)]![c]).join('')).toBe('55555')
    },
  )
  it('close on themselves after their rows, in every stitch', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...TECHNIQUES.filter((t) => t.family === 'weave').map((t) => t.id)),
        fc.constantFrom(...FIGURES),
        fc.integer({ min: 1, max: 9 }),
        fc.array(fc.integer({ min: 1, max: 3 }), { minLength: 2, maxLength: 6 }),
        (technique, figure, across, sequence) => {
          const columns = requireTechnique(technique).growth.nearestColumns(
            across,
            requireTechnique(technique).settings.parse({}),
          )
          const wish = { figure, sequence, swing: 2, along: 6, across: 2 }
          const height = figureRows(latticeOf(blank(technique, columns, 2)), wish)
          const p = blank(technique, columns, 2 * height)
          const laid = figureIn(p, whole(p), wish)
          expect(laid.size).toBe(2 * height * columns)
          for (let r = 0; r < height; r++)
            for (let c = 0; c < columns; c++)
              expect(laid.get(keyOf(columns, c, r))).toBe(laid.get(keyOf(columns, c, r + height)))
          for (const number of laid.values()) expect(sequence).toContain(number)
        },
      ),
    )
  })
  it('checks and waves by hand', () => {
    const p = blank('square', 6, 4)
    expect(drawn(p, figureIn(p, whole(p), { figure: 'checks', sequence: [1, 2], across: 3, along: 2 }))).toEqual([
      '111222',
      '111222',
      '222111',
      '222111',
    ])
    expect(
      drawn(
        blank('square', 5, 4),
        figureIn(
          blank('square', 5, 4),
          { c: 0, r: 0, columns: 5, rows: 4 },
          { figure: 'wave', sequence: [1, 2, 3], swing: 2, along: 4 },
        ),
      ),
    ).toEqual(['32123', '33321', '32123', '12333'])
    expect(
      drawn(
        blank('square', 3, 4),
        figureIn(
          blank('square', 3, 4),
          { c: 0, r: 0, columns: 3, rows: 4 },
          { figure: 'stripes', sequence: [1, 1, 2] },
        ),
      ),
    ).toEqual(['111', '111', '222', '111'])
  })
})

describe('gradients', () => {
  const p = blank('square', 8, 40)
  it('hold each bead and go from the first to the last', () => {
    for (const blend of ['steps', 'ordered', 'random'] as const) {
      for (const way of ['along', 'across', 'outward'] as const) {
        const laid = gradientIn(p, whole(p), { sequence: [1, 2, 3], way, blend, seed: 7 })
        expect(new Set(laid.values())).toEqual(new Set([1, 2, 3]))
        const mean = (keep: (r: number, c: number) => boolean) => {
          const some = [...laid].filter(([key]) => keep(Math.floor(key / 8), key % 8)).map(([, n]) => n)
          return some.reduce((sum, n) => sum + n, 0) / some.length
        }
        if (way === 'along') expect(mean((r) => r < 10)).toBeLessThan(mean((r) => r >= 30))
        if (way === 'across') expect(mean((_, c) => c < 3)).toBeLessThan(mean((_, c) => c > 4))
        if (way === 'outward')
          expect(mean((r, c) => r > 15 && r < 24 && c > 2 && c < 5)).toBeLessThan(
            mean((r, c) => (r < 5 || r > 34) && (c < 2 || c > 5)),
          )
      }
    }
  })
  it('by chance are the same for the same seed and others for another', () => {
    const laid = (seed: number) =>
      drawn(p, gradientIn(p, whole(p), { sequence: [1, 2], way: 'along', blend: 'random', seed })).join()
    expect(laid(3)).toBe(laid(3))
    expect(laid(3)).not.toBe(laid(4))
  })
})

describe('borders', () => {
  it('turn every corner as its own mirror image, whatever the counts are', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 2, max: 14 }),
        fc.integer({ min: 2, max: 14 }),
        fc.array(fc.integer({ min: 1, max: 3 }), { minLength: 1, maxLength: 4 }),
        fc.integer({ min: 1, max: 3 }),
        (columns, height, sequence, rings) => {
          const p = blank('square', columns, height)
          const laid = borderIn(p, whole(p), { sequence, rings, corner: null })
          const at = (c: number, r: number) => laid.get(keyOf(columns, c, r))
          for (let r = 0; r < height; r++) {
            for (let c = 0; c < columns; c++) {
              expect(at(c, r)).toBe(at(columns - 1 - c, r))
              expect(at(c, r)).toBe(at(c, height - 1 - r))
              // Along both sides of a corner the same beads follow, up to the middle of the shorter side.
              if (Math.max(c, r) < Math.min(columns, height) / 2) expect(at(c, r)).toBe(at(r, c))
              expect(at(c, r) !== undefined).toBe(Math.min(c, r, columns - 1 - c, height - 1 - r) < rings)
            }
          }
        },
      ),
    )
  })
  it('by hand, with a bead of its own at the corners', () => {
    const p = blank('square', 6, 5)
    expect(drawn(p, borderIn(p, whole(p), { sequence: [2, 3], rings: 1, corner: 4 }))).toEqual([
      '432234',
      '311113',
      '211112',
      '311113',
      '432234',
    ])
  })
})

describe('letters', () => {
  it('are five rows high, each row as wide as the others', () => {
    for (const sign of `ABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789 .,!?-+&'":/♥★ÄÖÜÉÈÑÅØÇ`) {
      const sign5 = signRows(sign)
      expect(sign5, sign).toHaveLength(5)
      expect(new Set(sign5!.map((r) => r.length)).size).toBe(1)
    }
  })
  it('are laid in the middle, along or across; what the alphabet lacks is named', () => {
    expect(letter('IL', 1)).toMatchObject({ width: 5, height: 5, missing: [] })
    expect(letter('I☃', 2)).toMatchObject({ width: 2, height: 10, missing: ['☃'] })
    const p = blank('square', 7, 9)
    const along = letteringIn(p, whole(p), { text: 'hi', size: 1, way: 'along', number: 2 })
    expect([along.columns, along.rows, along.fits]).toEqual([5, 5, true])
    expect(drawn(p, along.laying)).toEqual([
      '1111111',
      '1111111',
      '1222221',
      '1112111',
      '1222221',
      '1111111',
      '1222221',
      '1111111',
      '1111111',
    ])
    expect(letteringIn(p, whole(p), { text: 'much too long', size: 1, way: 'along', number: 2 }).fits).toBe(false)
    expect(letter('é').ink).toEqual(letter('É').ink)
    expect(letter('ŝ').ink).toEqual(letter('S').ink)
  })
})

describe('boxes moved about', () => {
  const p = part({
    technique: 'loom',
    settings: requireTechnique('loom').settings.parse({}),
    start: rows('ABC', 'DEF'),
    repeat: rows('AAA'),
    end: rows('BBB'),
    times: 1,
  })
  it('are turned, shifted and repeated', () => {
    const box = { c: 0, r: 0, columns: 3, rows: 2 }
    expect(drawn(p, turnBox(p, box)).slice(0, 2)).toEqual(['654', '321'])
    expect(drawn(p, shiftBox(p, box, 1, 0)).slice(0, 2)).toEqual(['312', '645'])
    expect(drawn(p, shiftBox(p, box, 0, 1)).slice(0, 2)).toEqual(['456', '123'])
    expect(drawn(p, repeatBox(p, { c: 0, r: 0, columns: 2, rows: 1 }, 'across'))[0]).toBe('121')
    expect(drawn(p, repeatBox(p, { c: 1, r: 0, columns: 1, rows: 2 }, 'along')).map((l) => l[1])).toEqual([
      '2',
      '5',
      '2',
      '5',
    ])
    expect(drawn(p, moveBox(p, { c: 0, r: 0, columns: 2, rows: 1 }, { c: 1, r: 1 })).slice(0, 2)).toEqual([
      '003',
      '412',
    ])
  })
  it('shifted there and back are as before', () => {
    fc.assert(
      fc.property(fc.integer({ min: -5, max: 5 }), fc.integer({ min: -5, max: 5 }), (x, y) => {
        const box = { c: 0, r: 0, columns: 3, rows: 2 }
        const q = piece({
          tray: piece().tray,
          parts: [
            part({
              technique: 'loom',
              settings: p.settings,
              start: rows('ABC', 'BCA'),
              repeat: rows('AAA'),
              end: rows('BBB'),
              times: 1,
            }),
          ],
        })
        const once = valueOf(applySteps(q, layingSteps(q.parts[0]!, shiftBox(q.parts[0]!, box, x, y))))
        const back = valueOf(applySteps(once, layingSteps(once.parts[0]!, shiftBox(once.parts[0]!, box, -x, -y))))
        expect(drawn(back.parts[0]!, new Map())).toEqual(drawn(q.parts[0]!, new Map()))
      }),
    )
  })
  it('a clip leaves what its empty marks lie on', () => {
    expect(pasteClip(p, { columns: 2, rows: 1, numbers: [LEAVE, 3], c: 0, r: 0 }, { c: 0, r: 0 })).toEqual(
      new Map([[1, 3]]),
    )
  })
})

describe('live symmetry', () => {
  const kinds = SYMMETRIES.filter((k) => k !== 'none')
  it('an image of an image is the bead itself, and every image is a bead of the work', () => {
    fc.assert(
      fc.property(anyPiece, fc.constantFrom(...kinds), fc.nat(), fc.nat(), (q, kind, x, y) => {
        const p = q.parts[0]!
        const place = { c: x % columnsOf(p), r: rowsOf(p) === 0 ? 0 : y % rowsOf(p) }
        if (!isInside(p, place)) return
        const symmetry = symmetryOf(p, kind, place.r)
        if (!symmetry.ok) return
        for (const image of symmetry.value.images(place)) {
          expect(isInside(p, image)).toBe(true)
          const back = symmetryOf(p, kind, image.r)
          expect(valueOf(back).images(image)).toContainEqual(place)
        }
      }),
      { numRuns: 300 },
    )
  })
  it('makes a symmetric grid of a symmetric grid, whatever is laid', () => {
    let symmetric = 0
    fc.assert(
      fc.property(
        anyPieceOf(ANY_IDS),
        fc.constantFrom(...kinds),
        fc.array(fc.tuple(fc.nat(), fc.nat(), fc.integer({ min: 0, max: 3 })), { minLength: 1, maxLength: 6 }),
        (q, kind, strokes) => {
          const bare = {
            ...q.parts[0]!,
            start: emptyCells(columnsOf(q.parts[0]!), q.parts[0]!.start.rows, 1),
            repeat: emptyCells(columnsOf(q.parts[0]!), q.parts[0]!.repeat.rows, 1),
            end: emptyCells(columnsOf(q.parts[0]!), q.parts[0]!.end.rows, 1),
          }
          let now = { ...q, parts: [bare] }
          for (const [x, y, number] of strokes) {
            const p = now.parts[0]!
            if (rowsOf(p) === 0) return
            const place = { c: x % columnsOf(p), r: y % rowsOf(p) }
            if (!isInside(p, place)) continue
            now = valueOf(
              applySteps(
                now,
                layingSteps(p, withImages(p, new Map([[keyOf(columnsOf(p), place.c, place.r), number]]), kind)),
              ),
            ) as typeof now
          }
          const p = now.parts[0]!
          // Copies of a repeat that slips sideways at its seam are not alike, so what makes one symmetric need not
          // suit the next.
          if (p.times > 1 && p.repeat.rows % latticeOf(p).period.rows !== 0) return
          for (let r = 0; r < rowsOf(p); r++) {
            const symmetry = symmetryOf(p, kind, r)
            if (!symmetry.ok) continue
            for (let c = 0; c < columnsOf(p); c++) {
              if (!isInside(p, { c, r })) continue
              for (const image of symmetry.value.images({ c, r })) {
                symmetric++
                expect(numberAt(p, image.c, image.r)).toBe(numberAt(p, c, r))
              }
            }
          }
        },
      ),
      { numRuns: 200 },
    )
    expect(symmetric).toBeGreaterThan(500)
  })
  const imagesIn = (p: Part, kind: SymmetryKind, c: number, r: number) =>
    valueOf(symmetryOf(p, kind, r))
      .images({ c, r })
      .map((q) => `${q.c},${q.r}`)
  it('of straight rows goes about the middle', () => {
    const p = blank('loom', 5, 7)
    expect(imagesIn(p, 'across', 1, 2)).toEqual(['3,2'])
    expect(imagesIn(p, 'along', 1, 2)).toEqual(['1,4'])
    expect(imagesIn(p, 'both', 0, 0)).toEqual(['4,0', '0,6', '4,6'])
    expect(imagesIn(p, 'turning', 0, 0)).toEqual(['4,6'])
  })
  it(
    'of odd peyote goes about its middle column; of even peyote about the column beside the middle, and one ' +
      'edge has no image',
    () => {
      expect(imagesIn(blank('peyote-odd', 7, 6), 'across', 1, 2)).toEqual(['5,2'])
      const even = blank('peyote', 8, 6)
      const pairs = Array.from({ length: 8 }, (_, c) => imagesIn(even, 'across', c, 2)[0] ?? 'none')
      expect(pairs.filter((t) => t === 'none')).toHaveLength(1)
      // The half turn of even peyote is exact over the whole width.
      expect(imagesIn(even, 'turning', 0, 0)[0]).toMatch(/^7,/)
    },
  )
  it('is refused where the stitch has none', () => {
    const spiral = symmetryOf(blank('peyote-spiral', 9, 6), 'across', 0)
    expect(spiral.ok ? '' : spiral.problems[0]!.code).toBe('no-symmetry')
  })
})
