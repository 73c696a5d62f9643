import { describe, expect, it } from 'vitest'
import { bead, part, piece, rows } from '../../../tests/fixture/piece'
import { foundBy, linesPart, mendedBy } from '../../../tests/fixture/proof'
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
  const tube = (grams: number) => ({
    ...{ id: 'x' },
    value: { kind: 'bead' as const, ...bead(1), grams, lot: '', place: '', note: '' },
  })
  it('is said to hold too little where it holds some, and nothing where it holds enough or none', () => {
    const p = piece({ parts: [part({ times: 200 })] })
    const with_ = (grams: number) =>
      foundBy(boxShort, p, { box: { stock: { items: [tube(grams) as never], holdings: [] } } }).map((f) => f.says)
    expect(with_(0.5)).toHaveLength(1)
    expect(with_(0.5)[0]).toContain('A Bead 1: the box gives 0.5 g')
    expect(with_(500)).toEqual([])
    expect(foundBy(boxShort, p)).toEqual([])
  })
})
