import { describe, expect, it } from 'vitest'
import { part, piece, rows } from '../../tests/fixture/piece'
import { insertRowsStep, layingSteps, removeRowsStep } from '../piece/edit'
import { findPart, type Piece } from '../piece/piece'
import { applySteps, invertSteps, type Step } from '../piece/step'
import { valueOf } from '../problem'
import { meanStep, speakStep, withMeant } from './meant'
import { proofOf } from './proof'
import { turningRow } from './rule/repeat'

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
const only = () => proof(doubled).open[0]!

describe('what is meant so', () => {
  const quiet = does(doubled, meanStep(doubled, only(), 'a double turn'))
  const band = findPart(quiet, 'band')!

  it('is quiet with its reason, and speaks when it is taken back', () => {
    expect(proof(quiet).open).toEqual([])
    expect(proof(quiet).quiet[0]!.meant).toBe('a double turn')
    expect(proof(does(quiet, speakStep(quiet, only()))).open).toHaveLength(1)
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
})
