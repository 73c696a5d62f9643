import { describe, expect, it } from 'vitest'
import { bead, part, piece, rows } from '../../../tests/fixture/piece'
import { foundBy, linesPart, mendedBy, of } from '../../../tests/fixture/proof'
import { readRecipeText } from '../../recipe/shorthand'
import { valueOf } from '../../problem'
import type { Plan } from '../../technique/technique'
import { faceDown, secondHole } from './second'

describe('second holes', () => {
  const TRAY = [bead(1), bead(2, { spec: 'almond-duo-5-x-2-5-mm' }), bead(3, { spec: 'round-8' })]
  it('that nothing passes are found, and a bead with one hole takes their places', () => {
    const p = piece({
      tray: TRAY,
      parts: [part({ technique: 'loom', settings: {}, repeat: rows('AABA', 'AAAA', 'BAAA') })],
    })
    const [found, ...more] = foundBy(secondHole, p)
    expect(more).toEqual([])
    expect(found).toMatchObject({ weight: 'looks', part: 'band' })
    expect(found!.says).toMatch(/^Row 2, column 3 is B Bead 2, which has two holes.*so it is in 1 more place\./)
    expect(found!.spots.map(({ r, c }) => [r, c])).toEqual([
      [0, 2],
      [2, 0],
    ])
    expect(found!.mends.map((m) => m.label)).toEqual(['Lay A Bead 1 there'])
    expect(foundBy(secondHole, mendedBy(p, found!))).toEqual([])
  })
  it('say how many there are, and the commonest bead with one hole that does not hang goes there', () => {
    const tray = [bead(1, { spec: 'drop-3-4-mm' }), bead(2, { spec: 'almond-duo-5-x-2-5-mm' }), bead(3)]
    const loom = (...lines: string[]) =>
      piece({
        tray,
        parts: [
          part({ technique: 'loom', settings: {}, start: rows('CCC'), repeat: rows(...lines), end: rows('CCC') }),
        ],
      })
    const says = (...lines: string[]) => foundBy(secondHole, loom(...lines)).map((f) => f.says)
    const tail = 'Work it where the second hole is passed too, or lay a bead with one hole.'
    const head = 'Row 2, column 2 is B Bead 2, which has two holes, and only one of them is used'
    expect(says('ABA', 'AAA')).toEqual([`${head}. ${tail}`])
    expect(says('ABB', 'AAA')).toEqual([`${head}; so it is in 1 more place. ${tail}`])
    expect(says('ABB', 'ABA')).toEqual([`${head}; so it is in 2 more places. ${tail}`])
    // Drops are the commonest, and hang.
    const [found] = foundBy(secondHole, loom('ABA', 'AAA'))
    expect(found!.mends.map((m) => m.label)).toEqual(['Lay C Bead 3 there'])
    const none = { ...loom('ABA', 'AAA'), tray: tray.slice(0, 2) }
    expect(foundBy(secondHole, none)[0]!.mends).toEqual([])
  })
  it('are each bead’s own', () => {
    const tray = [bead(1), bead(2, { spec: 'almond-duo-5-x-2-5-mm' }), bead(3, { spec: 'domed-duo-5-x-2-5-mm' })]
    const p = piece({ tray, parts: [part({ technique: 'loom', settings: {}, repeat: rows('ABCA') })] })
    expect(foundBy(secondHole, p).map((f) => f.spots.map((s) => s.c))).toEqual([[1], [2]])
  })
  it('are left alone where both are passed, and beads with one hole always', () => {
    const ring = linesPart(
      'tile-ring',
      Array.from({ length: 10 }, () => [1, 2, 2]),
      { spec: 'half-tile-5-x-2-3-mm' },
    )
    const tiles = [bead(1, { spec: 'half-tile-5-x-2-3-mm' }), bead(2, { spec: 'round-8' })]
    expect(foundBy(secondHole, piece({ tray: tiles, parts: [ring] }))).toEqual([])
    expect(foundBy(secondHole, piece())).toEqual([])
  })
})

describe('two-sided beads', () => {
  const recipe = (motif: string) =>
    valueOf(
      readRecipeText(`
recipe domes "Rings of domes"
bead dome domed-duo-5-x-2-5-mm "dome" "domes"
bead seed round-11 "seed" "seeds"
carrier thread thread 0.15 "thread"
motif
${motif}`),
    )
  const domes = (motif: string, line: readonly number[]) =>
    piece({
      tray: [bead(1, { spec: 'domed-duo-5-x-2-5-mm' }), bead(2, { spec: 'round-11' })],
      parts: [
        linesPart(
          'own-recipe',
          Array.from({ length: 4 }, () => line),
          { plan: { recipe: recipe(motif), params: {} } as unknown as Plan },
        ),
      ],
    })
  /** A ring of two domes, and seeds round the outside of both. */
  const RING = `  pick dome:one seed:a*3 dome:two seed:z*3
  pass one
  pick seed:o*2
  pass one.b<
  pick seed:p*2
  pass one a two
  pick seed:q*2
  pass two.b<
  pick seed:r*2
  pass two
`
  /** The first dome as before; a second ring joins by the other hole of the second, on the other hand. */
  const EIGHT = `  pick dome:one seed:a*3 dome:two seed:z*3
  pass one
  pick seed:o*2
  pass one.b<
  pick seed:p*2
  pass one a two.b<
  pick seed:y*3 seed:x*3
  pass two.b<
`
  it('that are picked up by holes on different sides are found, with their places in the line', () => {
    const found = foundBy(faceDown, domes(EIGHT, [1, ...of(3, 2), 1, ...of(13, 2)]))
    expect(found).toHaveLength(1)
    expect(found[0]).toMatchObject({ weight: 'note', part: 'band' })
    expect(found[0]!.says).toMatch(
      /^One of the 2 domes of a motif would lie face down if all are picked up alike: bead [15] /,
    )
    expect(found[0]!.spots).toHaveLength(1)
  })
  it('are left alone where all are picked up alike, and where none is two-sided', () => {
    expect(foundBy(faceDown, domes(RING, [1, ...of(3, 2), 1, ...of(11, 2)]))).toEqual([])
    expect(foundBy(faceDown, piece())).toEqual([])
  })
})
