import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { part, piece, rows } from '../../../tests/fixture/piece'
import { foundBy, linesPart, mendedBy, of } from '../../../tests/fixture/proof'
import { partRow, type Part } from '../../piece/piece'
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
  it('is left alone in stitches whose rows do not lie as each other, and under five rows', () => {
    const { start, end, repeat } = doubled.parts[0]!
    const as = (technique: string, more: Partial<Part> = {}) =>
      foundBy(turningRow, piece({ parts: [part({ technique, settings: {}, start, end, repeat, ...more })] })).length
    expect(['loom', 'square'].map((t) => as(t))).toEqual([1, 1])
    expect(as('brick')).toBe(0)
    expect(as('loom', { repeat: rows('AAB', 'ABC', 'AAB') })).toBe(0)
    expect(turnsTwice([0, 1, 2, 1, 0])).toBe(true)
    for (const list of [
      [0, 1, 0],
      [0, 1, 0, 1, 0],
      [0, 1, 2, 2, 1, 0],
      [0, 1, 2, 3, 0],
    ])
      expect(turnsTwice(list)).toBe(false)
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
  it('says what is over and what is missing, and where', () => {
    const broken = loom(rows('AAB', 'ABB', 'BBB', 'AAB', 'ABB', 'BBB', 'AAB', 'ABB'))
    const [found] = foundBy(repeatCloses, broken)
    expect(found!.says).toBe(
      'The pattern comes again every 3 rows, and the repeat holds 8: it breaks off after 2 of 3. ' +
        'Take 2 rows out, or put 1 in.',
    )
    expect(found!.spots.map(({ r }) => r)).toEqual([6, 7])
    expect(found!.mends.map((m) => m.label)).toEqual(['Take the last 2 rows out'])
    expect(mendedBy(broken, found!).parts[0]!.repeat.rows).toBe(6)
    const one = foundBy(repeatCloses, loom(rows('AAB', 'ABB', 'BBB', 'AAB', 'ABB', 'BBB', 'AAB')))[0]!
    expect(one.mends.map((m) => m.label)).toEqual(['Take the last row out'])
  })
  it('is asked only of what is worked again, and of what does not turn', () => {
    const lines = rows('AAB', 'ABB', 'BBB', 'AAB', 'ABB', 'BBB', 'AAB')
    expect(foundBy(repeatCloses, loom(lines, 1))).toEqual([])
    expect(foundBy(repeatCloses, loom(rows('AAB', 'ABB', 'AAB')))).toEqual([])
    // Up and back by the same rows, which is another rule’s.
    expect(foundBy(repeatCloses, loom(rows('AAB', 'ABB', 'BBB', 'ABB', 'AAB', 'ABB', 'BBB', 'ABB', 'AAB')))).toEqual(
      [],
    )
    // All alike.
    expect(foundBy(repeatCloses, loom(rows(...Array<string>(7).fill('AAB'))))).toEqual([])
    // Every other row of brick leans the other way: it comes again after an even number of them.
    const brick = (...repeat: string[]) =>
      piece({ parts: [part({ technique: 'brick', settings: {}, repeat: rows(...repeat) })] })
    const found = foundBy(
      repeatCloses,
      brick('AABB', 'ABBA', 'BBAA', 'BAAB', 'AABB', 'ABBA', 'BBAA', 'BAAB', 'AABB', 'ABBA'),
    )
    expect(found.map((f) => f.mends[0]?.label)).toEqual(['Take the last 2 rows out'])
    expect(foundBy(repeatCloses, brick('AABB', 'ABBA', 'BBAA', 'AABB', 'ABBA', 'BBAA', 'AABB', 'ABBA'))).toEqual([])
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
  it('is mended where the stitch can be worked with fewer round, and named at one row', () => {
    const p = tube('brick-tube', 'ABCABCABCA', 'AAAAAAAAAA', 'BCABCABCAB')
    const [found] = foundBy(roundCloses, p)
    expect(found!.mends.map((m) => m.label)).toEqual(['Take 1 column out: 9 round'])
    expect(found!.spots).toEqual([{ section: 'repeat', r: 0, c: null }])
    const mended = mendedBy(p, found!)
    expect(mended.parts[0]!.repeat.columns).toBe(9)
    expect(foundBy(roundCloses, mended)).toEqual([])
    // Peyote round a tube is worked over an even number, and 9 is none.
    const even = foundBy(roundCloses, tube('peyote-tube', 'ABBCABBCAB', 'ABBCABBCAB'))
    expect(even.map((f) => [/(\d+ or \d+) round/.exec(f.says)![1], f.mends.length])).toEqual([['8 or 12', 1]])
  })
  it('is said where most patterned rows break by it, at least two', () => {
    const breaks = (...lines: string[]) => foundBy(roundCloses, tube('brick-tube', ...lines)).length
    const [open, other] = ['ABCABCABCA', 'AABBAAABBB']
    expect(breaks(open)).toBe(0)
    expect(breaks(open, open)).toBe(1)
    expect(breaks(open, open, open, other)).toBe(1)
    expect(breaks(open, open, other)).toBe(0)
    expect(breaks(open, open, other, other)).toBe(0)
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
  it('is mended by taking what is over off, in its own line, where it came three times', () => {
    const line = (n: number) => Array.from({ length: n }, (_, k) => 1 + (k % 3))
    const p = piece({ parts: [linesPart('rung-ladder', [line(9), line(10)])] })
    const [found, ...more] = foundBy(colourCycle, p)
    expect(more).toEqual([])
    expect(found).toMatchObject({ weight: 'note', spots: [{ section: 'repeat', r: 1, c: null }] })
    expect(found!.says).toMatch(/^Rung 2: its 3 colours come again, and it ends after 1 of 3\. 9 or 12 beads end/)
    expect(found!.mends[0]!.label).toBe('Take 1 bead off its end')
    expect([...partRow(mendedBy(p, found!).parts[0]!, 1)]).toEqual(line(9))
    expect(foundBy(colourCycle, strand(line(8)))).toEqual([])
    expect(foundBy(colourCycle, piece({ parts: [linesPart('fringe', [line(11)])] }))).toEqual([])
  })
  it('is left alone where it is whole, alike from both ends, or plain', () => {
    expect(foundBy(colourCycle, strand(Array.from({ length: 12 }, (_, k) => 1 + (k % 3))))).toEqual([])
    expect(foundBy(colourCycle, strand(Array.from({ length: 11 }, (_, k) => 1 + (k % 2))))).toEqual([])
    expect(foundBy(colourCycle, strand(of(11)))).toEqual([])
  })
})
