import { describe, expect, it } from 'vitest'
import { bead, part, piece, rows } from '../../../tests/fixture/piece'
import { foundBy, mendedBy } from '../../../tests/fixture/proof'
import { underLamp } from '../../colour/vision'
import { tallyPiece } from '../../tally/tally'
import { glyphs } from './glyphs'
import { neighbours } from './neighbours'
import { twins } from './twins'
import { unused } from './unused'

const RED = bead(1, { colour: '#b03a2e', finish: 'opaque' })
const BLUE = bead(2, { colour: '#1b4f8a', finish: 'opaque' })
const THIRD = bead(3, { colour: '#e0d6b8', finish: 'opaque' })
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
  it('has one mark twice, or letters that look alike', () => {
    const p = flat({ glyph: BLUE.glyph })
    const [found] = foundBy(glyphs, p)
    expect(found!.says).toContain('A and B have the same mark')
    expect(foundBy(glyphs, mendedBy(p, found!))).toEqual([])
    expect(foundBy(glyphs, flat({ letter: 'O' }, { letter: 'Q' })).map((f) => f.weight)).toEqual(['note'])
    expect(foundBy(glyphs, flat({ letter: 'O' }))).toEqual([])
  })
})
