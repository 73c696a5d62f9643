import { describe, expect, it } from 'vitest'
import { bead, part, rows } from '../../tests/fixture/piece'
import { drawnSize } from '../piece/drawn-size'
import { freeDrawing, type Carrier } from '../technique/drawing'
import { paintPlaced } from './placed'
import { makeSprites } from './sprite'
import { flipOf, screenOfWork, type Lie } from './view'

/** One red bead in the middle of a part, and a wire straight over it that lies where it is said to. */
function middlePixel(lies: Carrier['lies'], lie: Lie, wrongSide: boolean, turned = false, scale = 20): string {
  const p = part({ start: rows('A'), repeat: rows('A'), end: rows('A'), times: 1 })
  const { width, length } = drawnSize(p)
  const at = { x: width / 2, y: length / 2 }
  const free = freeDrawing({
    placed: [{ key: 0, ...at, turnDegrees: 0 }],
    carriers: [
      {
        ...{ kind: 'wire', thickMm: 0.4, ...(lies ? { lies } : {}) },
        points: [
          { x: 0, y: at.y },
          { x: width, y: at.y },
        ],
      },
    ],
    ...{ widthMm: width, lengthMm: length, bead: { l: 1.4, d: 1.6 } },
  })
  const options = { ground: { r: 207, g: 198, b: 184 }, glyphs: false, nap: 4 }
  const sprites = makeSprites([bead(1, { colour: '#ff0000', finish: 'matte' })], scale, options)
  const surface = { width: 200, height: 200, pixels: new Int32Array(40_000) }
  const view = { lie, scale, x: 30, y: 30, flip: flipOf({ wrongSide, turned }) }
  paintPlaced(surface, { x0: 0, y0: 0, x1: 200, y1: 200 }, { part: p, free, view, sprites })
  const { x, y } = screenOfWork(p, view, at.x, at.y)
  const pixel = surface.pixels[Math.floor(y) * 200 + Math.floor(x)]!
  return ((pixel >> 8) & 255) > 100 ? 'wire' : 'bead'
}

describe('what carries beads, from both sides', () => {
  const ways = [
    ['level', false],
    ['level', true],
    ['upright', false],
    ['upright', true],
  ] as const
  it('is seen over the beads from the side that it lies on, and is hidden from the other', () => {
    for (const [lie, turned] of ways) {
      expect(middlePixel('before', lie, false, turned), `${lie} before`).toBe('wire')
      expect(middlePixel('before', lie, true, turned), `${lie} before, from behind`).toBe('bead')
      expect(middlePixel('behind', lie, false, turned), `${lie} behind`).toBe('bead')
      expect(middlePixel('behind', lie, true, turned), `${lie} behind, from behind`).toBe('wire')
    }
  })
  it('is hidden from both where it goes through them', () => {
    for (const [lie, turned] of ways)
      for (const wrongSide of [false, true]) expect(middlePixel(undefined, lie, wrongSide, turned)).toBe('bead')
  })
  it('lies over them from afar too', () => {
    expect(middlePixel('before', 'level', false, false, 2.4)).toBe('wire')
    expect(middlePixel('behind', 'level', false, false, 2.4)).toBe('bead')
  })
})
