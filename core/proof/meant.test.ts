import { describe, expect, it } from 'vitest'
import { part, piece, rows } from '../../tests/fixture/piece'
import { insertColumnsStep, insertRowsStep, layingSteps, removeRowsStep, setStep } from '../piece/edit'
import { removePartSteps } from '../piece/recast'
import { findPart, type Piece } from '../piece/piece'
import { applySteps, invertSteps, type Step } from '../piece/step'
import { valueOf } from '../problem'
import { meanStep, meantFor, speakStep, withMeant } from './meant'
import { proofOf } from './proof'
import { turningRow } from './rule/repeat'
import { closes } from './rule/wear'

const doubled = piece({
  parts: [
    part({
      ...{ technique: 'loom', settings: {}, start: rows('AAA', 'AAA', 'AAA'), end: rows('AAA') },
      repeat: rows('AAB', 'ABC', 'BCC', 'ABC', 'AAB'),
    }),
  ],
})
const proof = (p: Piece) => proofOf(p, {}, [turningRow])
const does = (p: Piece, ...steps: Step[]) => valueOf(applySteps(p, [...withMeant(p, steps)]))
const doubling = () => proof(doubled).open[0]!

describe('what is meant so', () => {
  const quiet = does(doubled, meanStep(doubled, doubling(), 'a double turn'))
  const band = findPart(quiet, 'band')!

  it('is quiet with its reason, and speaks when it is taken back', () => {
    expect(proof(quiet).open).toEqual([])
    expect(proof(quiet).quiet[0]!.meant).toBe('a double turn')
    expect(proof(does(quiet, speakStep(quiet, doubling()))).open).toHaveLength(1)
  })
  it('stays quiet when rows move elsewhere, and when its own place moves along', () => {
    const lower = does(quiet, insertRowsStep(band, 'start', 1, 2, 1))
    expect(proof(lower).open).toEqual([])
    // A row more within the repeat and one less: the place itself is another one.
    const inside = does(quiet, insertRowsStep(band, 'repeat', 0, 1, 1))
    expect(inside.meant.map(({ r }) => r)).toEqual([1])
  })
  it('speaks again when the place changes, and is quiet when that is undone', () => {
    const steps = withMeant(
      quiet,
      layingSteps(
        band,
        new Map([
          [3 * 3, 2],
          [7 * 3, 2],
        ]),
      ),
    )
    const changed = valueOf(applySteps(quiet, [...steps]))
    expect(proof(changed).open).toHaveLength(1)
    expect(proof(valueOf(applySteps(changed, invertSteps(steps)))).open).toEqual([])
  })
  it('goes with its place and comes back with it', () => {
    const steps = withMeant(quiet, [removeRowsStep(band, 'repeat', 0, 1)])
    const gone = valueOf(applySteps(quiet, [...steps]))
    expect(gone.meant).toEqual([])
    expect(valueOf(applySteps(gone, invertSteps(steps))).meant).toEqual(quiet.meant)
  })
  it('is of one place, part and rule, and of one reason, the last', () => {
    const again = does(quiet, meanStep(quiet, { ...doubling(), meant: null }, 'for the border'))
    expect(again.meant).toHaveLength(1)
    expect(meantFor(again, doubling())).toBe('for the border')
    const other = [
      { rule: 'repeat-open' },
      { part: 'other' },
      { part: null },
      { sign: '00000000' },
      { spots: [{ section: 'repeat' as const, r: 1, c: null }] },
      { spots: [{ section: 'repeat' as const, r: 0, c: 0 }] },
      { spots: [{ section: 'start' as const, r: 0, c: null }] },
    ]
    for (const more of other) expect(meantFor(again, { ...doubling(), ...more })).toBeNull()
    expect(does(again, speakStep(again, { ...doubling(), rule: 'repeat-open' })).meant).toEqual(again.meant)
  })
  it('of the piece as a whole has no place to move with', () => {
    const [fit] = proofOf(quiet, {}, [closes]).open
    const both = does(quiet, meanStep(quiet, fit!, 'a sample'))
    expect(both.meant.at(-1)).toMatchObject({ part: '', section: 'start', r: 0, c: null })
    const own = findPart(both, 'band')!
    const lower = does(both, insertRowsStep(own, 'start', 0, 2, 1))
    expect(lower.meant).toEqual(both.meant)
  })
  it('moves along with columns, where it is one bead', () => {
    const spot = { section: 'repeat' as const, r: 2, c: 1 }
    const at = does(quiet, meanStep(quiet, { ...doubling(), spots: [spot] }, 'this one'))
    const wider = does(at, insertColumnsStep(findPart(at, 'band')!, 0, 2, 1))
    expect(wider.meant.map(({ c }) => c)).toEqual([null, 3])
    // Other parts and settings leave it where it is, and no step is added.
    const steps = [setStep(at, ['notes'], 'other')]
    expect(withMeant(at, steps)).toBe(steps)
    const bare = { ...at, meant: [] }
    const more = [insertRowsStep(findPart(at, 'band')!, 'start', 0, 1, 1)]
    expect(withMeant(bare, more)).toBe(more)
  })
  it('goes with its part, and of another stays', () => {
    const two = { ...quiet, parts: [...quiet.parts, { ...quiet.parts[0]!, id: 'two', name: 'Two' }] }
    expect(does(two, ...removePartSteps(two, 'two')).meant).toEqual(quiet.meant)
    expect(does(two, ...removePartSteps(two, 'band')).meant).toEqual([])
  })
})
