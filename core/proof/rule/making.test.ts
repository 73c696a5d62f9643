import { describe, expect, it } from 'vitest'
import { bead, part, piece, rows } from '../../../tests/fixture/piece'
import { foundBy, linesPart, mendedBy } from '../../../tests/fixture/proof'
import { shelfValueSchema } from '../../shelf/shelf'
import { cautions } from './cautions'
import { holes } from './holes'
import { own } from './own'
import { sharpEdges } from './sharp'
import { boxShort } from './box'

describe('holes', () => {
  const tight = piece({
    tray: [bead(1, { spec: 'cylinder-15' }), bead(2, { spec: 'cylinder-15' })],
    parts: [part({ spec: 'cylinder-15', times: 50 })],
  })
  const full = { ...tight, supply: { ...tight.supply, needle: '10' as const } }
  it('are found where a needle will not pass, with what helps', () => {
    const [found] = foundBy(holes, full)
    expect(found!.says).toContain('cylinder 15/0: a hole of 0.65 mm for')
    expect(found!.mends.map((m) => m.label)[0]).toMatch(/^Take needle size/)
    const mended = mendedBy(full, found!)
    expect(mended.supply.needle).not.toBe('10')
    expect(foundBy(holes, mended).length).toBeLessThanOrEqual(foundBy(holes, full).length)
  })
  it('say what they are, what goes through, and where, and each help is a mend', () => {
    const with_ = (supply: Partial<typeof tight.supply>) =>
      foundBy(holes, { ...tight, supply: { ...tight.supply, ...supply } })
    const said = (supply: Parameters<typeof with_>[0]) =>
      with_(supply).map(({ weight, says, mends, spots }) => [weight, says, mends.map((m) => m.label), spots])
    expect(said({ needle: '10' })).toEqual([
      [
        'stops',
        'cylinder 15/0: a hole of 0.65 mm for 2 passes in the work, which need 0.69 mm: it will not go through. ' +
          'Take one of these.',
        ['Take needle size 11', 'Take nylon 0'],
        [],
      ],
      [
        'stops',
        'cylinder 15/0: a hole of 0.65 mm for 4 passes where the closure is sewn on (rows 1–2, column 1), which ' +
          'need 0.69 mm: it will not go through. Take one of these.',
        ['Take needle size 15', 'Take nylon 0'],
        [{ section: 'start', r: 0, c: 0 }],
      ],
    ])
    const [work, ends] = said({ needle: '12', doubled: true })
    expect(work!.slice(0, 3)).toEqual([
      'note',
      'cylinder 15/0: a hole of 0.65 mm for 2 passes in the work, which need 0.59 to 0.74 mm: tight. ' +
        'Take one of these.',
      ['Take needle size 15', 'Take nylon 0', 'Work with single thread'],
    ])
    expect([ends![1], ends![2]]).toEqual([
      expect.stringMatching(/tight\. Take a bead with a larger hole, or another path\.$/),
      [],
    ])
    const taken = (supply: Parameters<typeof with_>[0], label: string) => {
      const p = { ...tight, supply: { ...tight.supply, ...supply } }
      const [found] = foundBy(holes, p)
      return mendedBy(
        p,
        found!,
        found!.mends.findIndex((m) => m.label === label),
      ).supply
    }
    expect(taken({ needle: '10' }, 'Take nylon 0').thread).toBe('nylon-0')
    expect(taken({ needle: '12', doubled: true }, 'Work with single thread').doubled).toBe(false)
    expect(taken({ reinforce: 2 }, 'Plan no extra passes').reinforce).toBe(0)
  })
  it('are said once for all parts in which they are alike', () => {
    const [one] = full.parts
    const more = { ...full, parts: [one!, ...['Left', 'Right'].map((name) => ({ ...one!, id: name, name }))] }
    const found = foundBy(holes, more)
    expect(found.map((f) => f.part)).toEqual(foundBy(holes, full).map(() => 'band'))
    expect(found[0]!.says).toMatch(/Take one of these\. So it is in Left and Right too\.$/)
  })
  it('are left alone where thread and needle pass easily', () => {
    expect(foundBy(holes, { ...tight, supply: { ...tight.supply, needle: '15', thread: 'gel-4' } })).toEqual([])
  })
})

describe('sharp edges', () => {
  const TRAY = [bead(1, { spec: 'round-11' }), bead(2, { spec: 'bugle-6-mm' }), bead(3, { spec: 'round-11' })]
  const fringe = (...lines: number[][]) => piece({ tray: TRAY, parts: [linesPart('fringe', lines)] })
  it('are found where a strand turns round a bugle', () => {
    const [found] = foundBy(sharpEdges, fringe([1, 2, 1], [1, 1, 2]))
    expect(found!.says).toContain('The thread turns round bugle 6 mm in 1 strand, first in strand 2')
    expect(found!.spots).toEqual([{ section: 'repeat', r: 1, c: 2 }])
  })
  it('are left alone where a seed stands at the turn', () => {
    expect(foundBy(sharpEdges, fringe([1, 2, 1], [1, 2, 3]))).toEqual([])
  })
  it('are counted by lines, and left alone in tubes, in one column, and on what is no thread', () => {
    const found = foundBy(sharpEdges, fringe([1, 2], [2, 2, 2], [1]))
    expect(found[0]!.says).toContain('in 2 strands, first in strand 1: put a seed bead at the turn')
    expect(found[0]!.spots.map(({ r, c }) => [r, c])).toEqual([
      [0, 1],
      [1, 2],
    ])
    const cut = (technique: string, columns: number) =>
      piece({
        tray: [bead(1), bead(2, { spec: 'hex-cut-11' }), bead(3)],
        parts: [
          part({
            ...{ technique, settings: {}, start: rows('A'.repeat(columns)), end: rows('A'.repeat(columns)) },
            repeat: rows('B'.repeat(columns), 'B'.repeat(columns)),
          }),
        ],
      })
    expect(foundBy(sharpEdges, cut('brick', 4))).toHaveLength(1)
    expect(foundBy(sharpEdges, cut('brick-tube', 4))).toEqual([])
    expect(foundBy(sharpEdges, cut('square', 1))).toEqual([])
    expect(foundBy(sharpEdges, piece({ tray: TRAY, parts: [linesPart('dangles', [[1, 2]])] }))).toEqual([])
  })
  it('are found at the edges of a band, and not inside it', () => {
    const band = (...lines: string[]) =>
      piece({
        tray: [bead(1), bead(2, { spec: 'hex-cut-11' }), bead(3)],
        parts: [
          part({ technique: 'loom', settings: {}, start: rows('AAA'), end: rows('AAA'), repeat: rows(...lines) }),
        ],
      })
    expect(foundBy(sharpEdges, band('ABA', 'ABA'))).toEqual([])
    expect(foundBy(sharpEdges, band('BAB', 'AAA'))[0]!.spots.map(({ c }) => c)).toEqual([0, 2])
  })
})

describe('what a technique says of its own', () => {
  it('keeps its code, and is left out where there is nothing', () => {
    const torn = piece({ parts: [part({ repeat: rows('....', '....'), technique: 'loom', settings: {} })] })
    expect(foundBy(own, torn).map((f) => [f.rule, f.weight])).toEqual([['row-empty', 'stops']])
    expect(foundBy(own, piece())).toEqual([])
  })
  it('names the lines that it is about, so that they are marked and lit', () => {
    const uneven = piece({
      parts: [
        linesPart('pins', [
          [1, 2, 1],
          [1, 2, 1],
          [1, 2],
          [1, 2, 1],
          [1, 2, 1],
        ]),
      ],
    })
    const [found] = foundBy(own, uneven).filter((f) => f.rule === 'pin-uneven')
    expect(found).toMatchObject({ weight: 'looks', spots: [{ section: 'repeat', r: 2, c: null }] })
    const ladder = piece({ parts: [linesPart('wire-ladder', [[1], [1, 1, 1, 1, 1, 1], [1, 1, 1, 1, 1, 1]])] })
    expect(
      foundBy(own, ladder)
        .filter((f) => f.rule === 'row-stands-off')[0]!
        .spots.map((s) => s.r),
    ).toEqual([1])
  })
})

describe('cautions', () => {
  const says = (p: Parameters<typeof foundBy>[1]) => foundBy(cautions, p).map((f) => f.says)
  it('are said where they apply, each once', () => {
    const p = piece()
    const necklace = {
      ...p,
      fit: {
        ...p.fit,
        kind: 'necklace' as const,
        bodyMm: 450,
        closure: { ...p.fit.closure, kind: 'magnet' as const },
      },
    }
    expect(says(necklace).filter((t) => t.includes('small children'))).not.toEqual([])
    expect(says(necklace).filter((t) => t.includes('implanted'))).toHaveLength(1)
    expect(new Set(says(necklace)).size).toBe(says(necklace).length)
  })
  it('are left out where nothing can hurt', () => {
    expect(says(piece())).toEqual([])
  })
})

describe('the box', () => {
  const p = piece({ parts: [part({ times: 200 })] })
  const stocked = (value: object, holdings: readonly object[] = [], pieceId?: string) =>
    foundBy(boxShort, p, {
      box: { stock: { items: [{ id: 'x', value }], holdings } as never, ...(pieceId ? { pieceId } : {}) },
    })
  const tube = (grams: number) => ({ kind: 'bead', ...bead(1), grams, lot: '', place: '', note: '' })
  const spool = (metres: number) =>
    shelfValueSchema.parse({ kind: 'thread', name: 'Spool', thread: p.supply.thread, lengthMm: 1000 * metres })
  it('is said to hold too little where it holds some, and nothing where it holds enough or none', () => {
    const [found, ...more] = stocked(tube(0.5))
    expect(more).toEqual([])
    expect(found).toMatchObject({ weight: 'note', part: null })
    expect(found!.says).toMatch(/^A Bead 1: the box gives 0\.5 g, and \d[\d.]* g more are needed\. Buy them before/)
    expect(stocked(tube(500))).toEqual([])
    expect(stocked(tube(0))).toEqual([])
    expect(foundBy(boxShort, p)).toEqual([])
    expect(foundBy(boxShort, p, { box: { stock: { items: [], holdings: [] } } })).toEqual([])
  })
  it('gives a piece what is set aside for it, and not what is for another', () => {
    const aside = [{ shelfId: 'x', pieceId: 'mine', kind: 'reserved', amount: 0.4 }]
    expect(stocked(tube(0.5), aside, 'mine')[0]!.says).toContain('gives 0.5 g')
    expect(stocked(tube(0.5), aside, 'another')[0]!.says).toContain('gives 0.1 g')
  })
  it('says the same of thread, in metres', () => {
    const says = stocked(spool(1.5)).map((f) => f.says)
    expect(says).toHaveLength(1)
    expect(says[0]).toMatch(/: the box gives 1\.5 m, and \d[\d.]* m more are needed\.$/)
    expect(stocked(spool(500))).toEqual([])
  })
})
