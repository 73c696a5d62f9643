import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { requireSpec as spec } from '../bead/spec'
import { roundOfTiles, tilesFor, TILES } from './tile-ring'

const HALF = spec('half-tile-5-x-2-3-mm')
const ring = (tiles: number, seed = 'round-8', seeds = 2, jointMm = 0) =>
  roundOfTiles({ tiles, tile: HALF, seeds, seed: spec(seed), jointMm })

describe('a ring of tiles', () => {
  it('ten half tiles with two seeds 8/0 between fit a middle finger, on 20 cm doubled (common practice)', () => {
    const ten = ring(10)
    expect(ten.insideMm).toBeCloseTo(56.5, 1)
    expect(ten.radiusMm).toBeCloseTo(10.55, 2)
    expect(ten.gapsMm.map((mm) => Number(mm.toFixed(3)))).toEqual([0.048, 0.022])
    expect(ten.seedsFirst).toBe(true)
    // Two legs of 100 mm go round and leave a third to close with.
    expect(100 - ten.wireMm).toBeCloseTo(33.8, 1)
  })
  it('is as large as worked by hand for other seeds; with 11/0 it takes twelve tiles', () => {
    const sizes = ['round-15', 'round-11', 'round-10', 'round-8', 'ball-2-mm'].map((id) => ring(10, id).insideMm)
    expect(sizes.map((mm) => Number(mm.toFixed(1)))).toEqual([38.2, 45.2, 48.6, 56.5, 57.1])
    expect(ring(12, 'round-11').insideMm).toBeCloseTo(55.3, 1)
    expect(ring(10, 'round-11', 3).insideMm).toBeCloseTo(59, 0)
    expect(ring(10, 'round-15').seedsFirst).toBe(false)
  })
  it('without seeds tiles meet at their inner edges: a polygon with an inner circle of l / 2 · cot (π / n)', () => {
    for (const n of [8, 12, 20]) {
      const { insideMm } = roundOfTiles({ tiles: n, tile: spec('tile-5-mm'), seeds: 0, seed: HALF, jointMm: 0 })
      expect(insideMm / (2 * Math.PI)).toBeCloseTo(2.5 / Math.tan(Math.PI / n), 3)
    }
  })
  it('closes: walked chord by chord and gap by gap it comes back to where it began (property)', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 6, max: 30 }),
        fc.constantFrom('round-15', 'round-11', 'round-8', 'cylinder-11'),
        fc.integer({ min: 1, max: 4 }),
        fc.double({ min: 0, max: 3, noNaN: true }),
        (tiles, seed, seeds, joint) => {
          const { radiusMm, gapsMm, wireMm } = ring(tiles, seed, seeds, joint)
          let [turn, way] = [0, 0]
          const chord = (l: number) => {
            turn += 2 * Math.asin(l / (2 * radiusMm))
            way += l
          }
          const gap = (mm: number) => {
            turn += mm / radiusMm
            way += mm
          }
          for (let k = 0; k < tiles; k++) {
            chord(HALF.l)
            gap(gapsMm[0])
            for (let s = 0; s < seeds; s++) {
              chord(spec(seed).l)
              gap(s < seeds - 1 ? gapsMm[1] : gapsMm[0])
            }
          }
          gap(joint)
          expect(turn).toBeCloseTo(2 * Math.PI, 6)
          expect(way).toBeCloseTo(wireMm, 6)
        },
      ),
    )
  })
  it('ring size → tiles → ring size lies within a tile’s step, and more of anything is larger (property)', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 44, max: 75, noNaN: true }),
        fc.integer({ min: 1, max: 3 }),
        fc.constantFrom('round-11', 'round-8'),
        (inside, seeds, seed) => {
          const of = { tile: HALF, seeds, seed: spec(seed), jointMm: 0 }
          const [under, over] = tilesFor(inside, of)
          expect(over!.tiles).toBe(under!.tiles + 1)
          expect(under!.insideMm).toBeLessThanOrEqual(inside)
          expect(over!.insideMm).toBeGreaterThan(inside)
          expect(tilesFor(under!.insideMm, of)[0]!.tiles).toBe(under!.tiles)
          const here = roundOfTiles({ ...of, tiles: under!.tiles }).insideMm
          expect(roundOfTiles({ ...of, tiles: under!.tiles, seeds: seeds + 1 }).insideMm).toBeGreaterThan(here)
          expect(roundOfTiles({ ...of, tiles: under!.tiles, jointMm: 2 }).insideMm - here).toBeCloseTo(2, 0)
        },
      ),
      { numRuns: 60 },
    )
    expect(tilesFor(1, { tile: HALF, seeds: 2, seed: spec('round-8'), jointMm: 0 })[0]!.tiles).toBe(TILES.least)
    expect(tilesFor(900, { tile: HALF, seeds: 2, seed: spec('round-8'), jointMm: 0 })[1]!.tiles).toBe(TILES.most)
  })
})
