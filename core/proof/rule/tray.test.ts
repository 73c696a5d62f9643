import { describe, expect, it } from 'vitest'
import { bead, part, piece, rows } from '../../../tests/fixture/piece'
import { foundBy, mendedBy } from '../../../tests/fixture/proof'
import { difference } from '../../colour/colour'
import { underLamp } from '../../colour/vision'
import { emptyCells } from '../../grid/cells'
import { tallyPiece } from '../../tally/tally'
import { glyphs } from './glyphs'
import { neighbours } from './neighbours'
import { twins } from './twins'
import { unused } from './unused'

const RED = bead(1, { colour: '#b03a2e', finish: 'opaque' })
const BLUE = bead(2, { colour: '#1b4f8a', finish: 'opaque' })
const THIRD = bead(3, { colour: '#e0d6b8', finish: 'opaque' })
/** Colours that come together for one kind of eye or light, found by trying, and who says so. */
const ALIKE = [
  ['#cf8b38', '#13db1b', 'for eyes without green cones'],
  ['#6d46b1', '#fd33bb', 'for eyes without red cones'],
  ['#f21080', '#d84108', 'for eyes without blue cones'],
  ['#dec612', '#9edf1a', 'for eyes without red cones and for eyes without green cones'],
  ['#2a5f9c', '#1b4f8a', 'in the light of a warm lamp'],
] as const
const flat = (one: Partial<ReturnType<typeof bead>>, two: Partial<ReturnType<typeof bead>> = {}) =>
  piece({ tray: [{ ...RED, ...one }, { ...BLUE, ...two }, THIRD] })

describe('beads that lie beside each other', () => {
  it('are found where their colours hardly differ', () => {
    const [found, ...more] = foundBy(neighbours, flat({ colour: '#1b4f8e' }))
    expect(more).toEqual([])
    expect(found).toMatchObject({ weight: 'looks', part: 'band' })
    expect(found!.says).toMatch(
      /^A Bead 1 and B Bead 2 are hard to tell apart \(colour difference [0-4]\.\d, under 5\)/,
    )
  })
  it('are worth knowing where only some eyes, or a lamp, bring them together', () => {
    // Red and green of one lightness, for eyes without red or green cones.
    const [found] = foundBy(neighbours, flat({ colour: '#a2692e' }, { colour: '#6d7d26' }))
    expect(found!.weight).toBe('note')
    expect(found!.says).toContain('for eyes without')
  })
  it('are said with how often and where they lie beside each other', () => {
    const p = flat({ colour: '#1b4f8e' })
    const [many] = foundBy(neighbours, p)
    expect(many!.says).toMatch(
      /they lie beside each other \d\d? times, first at rows? [\d–]+, column \d\. Take a lighter/,
    )
    expect(many!.spots).toEqual([{ section: 'start', r: 0, c: expect.any(Number) }])
    const none = emptyCells(4, 0)
    const row = (line: string) => ({
      ...p,
      parts: [part({ technique: 'loom', settings: {}, times: 1, start: none, repeat: rows(line), end: none })],
    })
    expect(foundBy(neighbours, row('AACB'))).toEqual([])
    expect(foundBy(neighbours, row('AABC'))[0]!.says).toContain(
      'they lie beside each other once, first at row 1, column 2.',
    )
    expect(foundBy(neighbours, row('ABAC'))[0]!.says).toContain('beside each other 2 times')
  })
  it('look wrong under 5, and under 3 where one shines and the other does not', () => {
    const weigh = (colour: string, more: Partial<typeof RED> = {}) =>
      foundBy(neighbours, flat({ colour, ...more })).map((f) => f.weight)
    const off = (colour: string) => difference(colour, BLUE.colour)
    const [near, middle, far] = ['#1f538e', '#265c97', '#3d7fd0'] as const
    expect(off(near)).toBeLessThan(3)
    expect([off(middle) > 3, off(middle) < 5]).toEqual([true, true])
    expect(off(far)).toBeGreaterThan(10)
    expect([weigh(near), weigh(middle), weigh(far)]).toEqual([['looks'], ['looks'], []])
    expect([weigh(near, { finish: 'metallic' }), weigh(middle, { finish: 'metallic' })]).toEqual([['looks'], []])
    // Lustre and opaque, transparent and lined shine alike.
    expect(weigh(middle, { finish: 'lustre' })).toEqual(['looks'])
    expect(weigh(middle, { finish: 'matte' })).toEqual([])
  })
  it('of one colour are found where only the finish differs, and left to the tray where nothing does', () => {
    const found = foundBy(neighbours, flat({ colour: BLUE.colour, finish: 'lustre' }))
    expect(found[0]!.says).toContain('colour difference 0.0, under 5')
    expect(foundBy(neighbours, flat({ colour: BLUE.colour }))).toEqual([])
  })
  it('are told apart by a quarter more in size, or by their shape', () => {
    const sized = (spec: string) => foundBy(neighbours, flat({ colour: '#1b4f8e', spec })).length
    // Cylinders 11/0 of 1.6 × 1.3 mm: 10/0 are 2.0 × 1.7, hex cuts 11/0 are of another shape.
    expect(['cylinder-11', 'cylinder-10', 'hex-cut-11'].map(sized)).toEqual([1, 0, 0])
  })
  it('name every kind of eye, and the lamp, in which they come together', () => {
    const eyes = (one: string, two: string) =>
      foundBy(neighbours, flat({ colour: one }, { colour: two })).map((f) => /apart (.*?):/.exec(f.says)![1])
    expect(eyes('#a2692e', '#6d7d26').join()).toMatch(/for eyes without (red|green) cones/)
    for (const [one, two, who] of ALIKE) expect(eyes(one, two)).toEqual([who])
  })
  it('are left alone where they differ, in finish, size or colour, and where they never meet', () => {
    expect(foundBy(neighbours, flat({}))).toEqual([])
    expect(foundBy(neighbours, flat({ colour: '#1b4fc4', finish: 'metallic' }))).toEqual([])
    expect(foundBy(neighbours, flat({ colour: '#1b4f8e', spec: 'round-6' }))).toEqual([])
    const apart = flat({ colour: '#1b4f8e' })
    const far = { ...apart, parts: [part({ start: rows('AAAA'), repeat: rows('CCCC', 'CCCC'), end: rows('BBBB') })] }
    expect(foundBy(neighbours, far)).toEqual([])
  })
  it('are seen in a lamp that leaves red and takes blue', () => {
    expect(underLamp('#ff0000')).toBe('#ff0000')
    // Half of the way to a black body of 2700 K: 0.63 and 0.32 of the light (from memory).
    expect(underLamp('#ffffff')).toBe('#ffd098')
  })
})

describe('the tray', () => {
  it('has a bead that nobody uses: it is taken off', () => {
    const p = flat({})
    const [found, ...more] = foundBy(unused, p)
    expect(more).toEqual([])
    expect(found!.says).toContain('C Bead 3 lies on the tray and nowhere in the work')
    expect(foundBy(unused, mendedBy(p, found!))).toEqual([])
  })
  it('has one bead twice: all are made to one, and nothing else changes', () => {
    const p = flat({ colour: BLUE.colour })
    const [found] = foundBy(twins, p)
    expect(found!.says).toContain('A Bead 1 and B Bead 2 are of the same colour, size and finish')
    const mended = mendedBy(p, found!)
    const counts = (q: typeof p) => [...tallyPiece(q).values()].reduce((a, b) => a + b, 0)
    expect(counts(mended)).toBe(counts(p))
    expect(mended.tray.map((b) => b.letter)).toEqual(['A', 'C'])
    expect(foundBy(twins, flat({}))).toEqual([])
    expect(foundBy(twins, flat({ colour: BLUE.colour, finish: 'matte' }))).toEqual([])
  })
  it('keeps a bead that stands in what is not worked, and the last one', () => {
    const p = flat({})
    const kept = { ...p, parts: [part({ times: 0, repeat: rows('CCCC', 'CCCC'), start: rows('ABAB') })] }
    const [found] = foundBy(unused, kept)
    expect([found!.says, found!.mends]).toEqual([expect.stringContaining('C Bead 3'), []])
    const alone = piece({
      tray: [RED],
      parts: [part({ start: rows('....'), repeat: rows('....'), end: rows('....') })],
    })
    expect(foundBy(unused, alone).map((f) => f.mends)).toEqual([[]])
  })
  it('has one bead three times: each goes to the first', () => {
    const same = { colour: BLUE.colour }
    const p = { ...flat(same), tray: [1, 2, 3].map((n) => bead(n, { ...same, finish: 'opaque' })) }
    const found = foundBy(twins, p)
    expect(found.map((f) => f.mends[0]!.label)).toEqual(['Make all B to A', 'Make all C to A'])
  })
  it('has one mark three times: each gets one of its own', () => {
    const { glyph } = RED
    const p = { ...flat({}), tray: [RED, { ...BLUE, glyph }, { ...THIRD, glyph }] }
    const found = foundBy(glyphs, p)
    expect(found.map((f) => f.says.split(' have')[0])).toEqual(['A and B', 'A and C'])
    const mended = mendedBy(mendedBy(p, found[0]!), found[1]!)
    expect(new Set(mended.tray.map((b) => b.glyph)).size).toBe(3)
    expect(foundBy(glyphs, flat({ letter: 'I' }, { letter: 'J' }))[0]!.says).toMatch(/^Letters I and J are both/)
  })
  it('has one mark twice, or letters that look alike', () => {
    const p = flat({ glyph: BLUE.glyph })
    const [found] = foundBy(glyphs, p)
    expect(found!.says).toContain('A and B have the same mark')
    expect(foundBy(glyphs, mendedBy(p, found!))).toEqual([])
    expect(foundBy(glyphs, flat({ letter: 'O' }, { letter: 'Q' })).map((f) => f.weight)).toEqual(['note'])
    expect(foundBy(glyphs, flat({ letter: 'O' }))).toEqual([])
  })
})
