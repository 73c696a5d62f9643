import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { bead, part, piece } from '../../tests/fixture/piece'
import { raggedFrom } from '../grid/lines'
import { requireTechnique } from '../technique/registry'
import { valueOf } from '../problem'
import { pieceFromBody, pieceToBody } from './codec'
import { layingSteps, setStep } from './edit'
import { shapeOf, workOf, type Part } from './piece'
import { sized, sizesText } from './sizes'
import { applySteps } from './step'

const lines = (...rows: number[][]) => raggedFrom(rows)
/** Lines on a technique of tests are not known here; a part of lines is all that is asked for. */
const ragged = (over: Partial<Part> = {}): Part => ({
  ...part({ technique: 'loom', settings: requireTechnique('loom').settings.parse({}) }),
  start: lines(),
  repeat: lines([1, 2], [2, 2, 3]),
  end: lines(),
  ...over,
})
const mixed = (specs: readonly string[] = ['round-11', 'round-8', 'round-11']) =>
  piece({ tray: specs.map((spec, k) => bead(k + 1, { spec })), parts: [ragged()] })

const text = ({ sizes, repeat, spec }: Part): string => sizesText(sizes, repeat, spec)

describe('sizes of the beads in lines', () => {
  it('are those of the tray, asked by place; nothing lies as the part is drawn', () => {
    const [one] = mixed().parts
    const work = workOf({ ...one!, repeat: lines([1, 0], [2, 2, 3]) })
    const ids = [
      [0, 0],
      [1, 0],
      [0, 1],
      [2, 1],
    ].map(([c, r]) => work.beadAt!(c!, r!).id)
    expect(ids).toEqual(['round-11', 'cylinder-11', 'round-8', 'round-11'])
    // Of a grid nothing is asked: it is drawn for one bead.
    expect(workOf(piece().parts[0]!).beadAt).toBeUndefined()
    expect(piece().parts[0]!.sizes).toBeUndefined()
  })
  it('stay one value as long as no size changes, and the shape with them', () => {
    const p = mixed()
    const recoloured = sized({ ...p, tray: p.tray.map((b) => ({ ...b, colour: '#123456' })) })
    expect(recoloured.parts[0]!.sizes).toBe(p.parts[0]!.sizes)
    expect(shapeOf(recoloured.parts[0]!)).toBe(shapeOf(p.parts[0]!))
    const other = sized({ ...p, tray: p.tray.map((b) => ({ ...b, spec: 'round-6' })) })
    expect(other.parts[0]!.sizes).not.toBe(p.parts[0]!.sizes)
    expect(sized(p)).toBe(p)
  })
  it('make another shape where a bead of another size is laid, and none where one of the same is', () => {
    const p = mixed()
    const before = shapeOf(p.parts[0]!)
    const laid = (number: number) => {
      const [one] = p.parts
      const [step] = layingSteps(one!, new Map([[0, number]]))
      return { ...one!, repeat: lines([step ? number : 1, 2], [2, 2, 3]) }
    }
    expect(text(laid(3))).toBe(text(p.parts[0]!))
    expect(text(laid(2))).not.toBe(text(p.parts[0]!))
    // All of the size that the part is drawn for: nothing can differ, not even where nothing lies.
    const plain = mixed(['cylinder-11', 'cylinder-11', 'cylinder-11'])
    expect(text(plain.parts[0]!)).toBe('')
    const one = mixed(['round-11', 'round-11', 'round-11']).parts[0]!
    expect(text({ ...one, repeat: lines([1, 0]) })).not.toBe(text({ ...one, repeat: lines([1, 2]) }))
    expect(shapeOf(p.parts[0]!)).toBe(before)
  })
  it('are told apart by text, however many there are', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 3 }), { maxLength: 30 }), (numbers) => {
        const { sizes } = mixed().parts[0]!
        const letters = ['.', 'a', 'b', 'a']
        expect(sizesText(sizes, lines(numbers), 'cylinder-11')).toBe(numbers.map((n) => letters[n]).join(''))
      }),
    )
  })
  it('are no field of the piece: neither in its file nor to be set', () => {
    const p = mixed()
    expect(JSON.stringify(pieceToBody(p))).not.toContain('sizes')
    const grid = piece()
    const set = applySteps(grid, [{ ...setStep(grid, ['name'], 'x'), path: ['parts', 'band', 'sizes'] }])
    expect(set.ok).toBe(false)
    expect(valueOf(pieceFromBody(pieceToBody(grid)))).toEqual(grid)
  })
})
