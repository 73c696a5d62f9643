import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { beginPiece } from '../begin/begin'
import { lengthOfLine, rowsOf, type Part, type Piece } from '../piece/piece'
import type { Settings } from '../technique/setting'
import { usualClosure } from '../wear/closure'
import { numbersIn, shownRows, shownSteps } from './strips'

const begun = (technique: string, spec: string, settings: Settings = {}): Piece =>
  beginPiece({
    ...{ kind: 'bracelet', name: 'Test', wearer: '', bodyMm: 165, easeMm: 13, widthMm: 9 },
    ...{ closure: usualClosure('toggle'), technique, settings, spec, motif: 'plain', start: 'left' },
  })
const daisies = begun('stemmed-flowers', 'round-8')
const onlyPart = (p: Piece): Part => p.parts[0]!

describe('steps in pictures', () => {
  it('show the work so far, what is new, and lead from where the thread came out to the needle', () => {
    fc.assert(
      fc.property(fc.nat(rowsOf(onlyPart(daisies)) - 1), (i) => {
        const steps = shownSteps(onlyPart(daisies), i)
        let strung = 0
        for (const { words, picture } of steps) {
          if (!picture) continue
          const count = picture.beads.filter((b) => b.look === 'new').length
          expect(count).toBe(words.runs.reduce((sum, { count: n }) => sum + n, 0))
          strung += count
          for (const b of picture.beads) {
            expect(b.x).toBeGreaterThan(picture.left)
            expect(b.y).toBeLessThan(picture.bottom)
          }
          if (picture.needle) expect(picture.way.at(-1)).toMatchObject({ x: picture.needle.x, y: picture.needle.y })
          expect(picture.enters !== null).toBe(words.says.includes('through') && !words.says.includes('ring'))
          expect(numbersIn(onlyPart(daisies), picture).every((n) => n > 0)).toBe(true)
        }
        expect(strung).toBe(lengthOfLine(onlyPart(daisies), i))
      }),
      { numRuns: 8 },
    )
  })
  it('say the start, a motif and the end once each; every kind of motif where several follow each other', () => {
    const titles = (p: Piece) =>
      shownRows(onlyPart(p)).map(({ words, others, steps }) => [words.index, others, steps.length])
    const last = rowsOf(onlyPart(daisies)) - 1
    expect(titles(daisies)).toEqual([
      [0, false, 4],
      [1, true, 5],
      [last, false, 5],
    ])
    const mixed = begun('stemmed-flowers', 'round-8', { mix: 'two' })
    expect(titles(mixed).map(([index]) => index)).toEqual([0, 1, 2, rowsOf(onlyPart(mixed)) - 1])
  })
  it('are as many as the steps of the recipe, for what is told of rows on two needles too', () => {
    const ladder = begun('rung-ladder', 'cube-3-mm')
    const steps = shownSteps(onlyPart(ladder), 3)
    expect(steps.length).toBeGreaterThan(1)
    expect(steps.some(({ picture }) => picture?.way.length)).toBe(true)
  })
})
