import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { part, piece, rows } from '../../../tests/fixture/piece'
import { foundBy, linesPart, mendedBy, of } from '../../../tests/fixture/proof'
import type { Part } from '../../piece/piece'
import { brokenPeriod, colourCycle, repeatCloses, roundCloses, turningRow, turnsTwice } from './repeat'

const loom = (repeat: Part['repeat'], times = 3) =>
  piece({
    parts: [part({ technique: 'loom', settings: {}, start: rows('AAA'), end: rows('AAA'), repeat, times })],
  })

describe('a repeat that doubles its turning row', () => {
  const doubled = loom(rows('AAB', 'ABC', 'BCC', 'ABC', 'AAB'))
  it('is found, and mended by leaving the last row out', () => {
    const [found] = foundBy(turningRow, doubled)
    expect(found).toMatchObject({ weight: 'looks', part: 'band', spots: [{ r: 0 }, { r: 4, c: null }] })
    expect(found!.says).toContain('Row 6 and the first of the next are alike')
    const mended = mendedBy(doubled, found!)
    expect(mended.parts[0]!.repeat.rows).toBe(4)
    expect(foundBy(turningRow, mended)).toEqual([])
  })
  it('is left alone where both turns come twice, or it is worked once, or is a plain stripe', () => {
    expect(foundBy(turningRow, loom(rows('AAB', 'ABC', 'BCC', 'BCC', 'ABC', 'AAB')))).toEqual([])
    expect(foundBy(turningRow, loom(rows('AAB', 'ABC', 'BCC', 'ABC', 'AAB'), 1))).toEqual([])
    expect(foundBy(turningRow, loom(rows('AAA', 'BBB', 'AAA', 'BBB', 'AAA')))).toEqual([])
    // Plain rows at both ends are ground between motifs.
    expect(turnsTwice([0, 0, 1, 2, 1, 0, 0])).toBe(false)
  })
})

describe('a repeat that breaks off its own period', () => {
  it('is found, and mended by taking what is over out', () => {
    const broken = loom(rows('AAB', 'ABB', 'BBB', 'AAB', 'ABB', 'BBB', 'AAB'))
    const [found] = foundBy(repeatCloses, broken)
    expect(found!.says).toContain('comes again every 3 rows, and the repeat holds 7: it breaks off after 1 of 3')
    expect(foundBy(repeatCloses, mendedBy(broken, found!))).toEqual([])
  })
  it('is left alone where it comes out even, or nothing comes again', () => {
    expect(foundBy(repeatCloses, loom(rows('AAB', 'ABB', 'BBB', 'AAB', 'ABB', 'BBB')))).toEqual([])
    expect(foundBy(repeatCloses, loom(rows('AAB', 'ABB', 'BBB', 'BAB', 'BAA', 'AAA')))).toEqual([])
  })
  it('has the least period that a list is made of', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 2, max: 6 }),
        fc.integer({ min: 2, max: 5 }),
        fc.integer({ min: 0, max: 5 }),
        (period, times, more) => {
          const list = Array.from({ length: period * times + (more % period) }, (_, k) => k % period)
          expect(brokenPeriod(list)).toEqual(more % period === 0 ? null : { period, over: more % period })
        },
      ),
    )
  })
})

describe('a pattern that does not divide the round', () => {
  const tube = (technique: string, ...lines: string[]) =>
    piece({
      parts: [
        part({
          ...{ technique, settings: {}, times: 4 },
          ...{ start: rows(lines[0]!.replaceAll(/./g, 'A')), end: rows(lines[0]!.replaceAll(/./g, 'A')) },
          repeat: rows(...lines),
        }),
      ],
    })
  it('is found with the counts that would close', () => {
    const [found] = foundBy(roundCloses, tube('brick-tube', 'ABCABCABCA', 'BCABCABCAB'))
    expect(found!.says).toContain('3 beads come again round the tube, and 10 do not divide by 3')
    expect(found!.says).toContain('9 or 12 round would close')
  })
  it('is left alone where it divides, or where it is flat', () => {
    expect(foundBy(roundCloses, tube('brick-tube', 'ABCABCABCABC', 'BCABCABCABCA'))).toEqual([])
    expect(foundBy(roundCloses, loom(rows('ABAB', 'BABA', 'ABAB')))).toEqual([])
  })
})

describe('a cycle of colours that breaks off', () => {
  const strand = (line: number[]) => piece({ parts: [linesPart('rung-ladder', [line])] })
  it('is found with the counts that end whole', () => {
    const line = Array.from({ length: 11 }, (_, k) => 1 + (k % 3))
    const [found] = foundBy(colourCycle, strand(line))
    expect(found!.says).toContain('its 3 colours come again, and it ends after 2 of 3. 9 or 12 beads')
  })
  it('is left alone where it is whole, alike from both ends, or plain', () => {
    expect(foundBy(colourCycle, strand(Array.from({ length: 12 }, (_, k) => 1 + (k % 3))))).toEqual([])
    expect(foundBy(colourCycle, strand(Array.from({ length: 11 }, (_, k) => 1 + (k % 2))))).toEqual([])
    expect(foundBy(colourCycle, strand(of(11)))).toEqual([])
  })
})
