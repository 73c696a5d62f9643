import { describe, expect, it } from 'vitest'
import { VISIONS, asSeen } from '../colour/vision'
import { difference } from '../colour/colour'
import { bendBand, bentSize, turnTube, type Flat } from './bend'
import { pack } from './look'

const WHITE = pack(255, 255, 255)
const GROUND = pack(1, 2, 3)
const GAP = pack(0, 0, 250)
/** A picture whose red says how far along it is and whose green how far across. */
const flat = (width: number, height: number): Flat => ({
  width,
  height,
  pixels: Int32Array.from({ length: width * height }, (_, i) =>
    pack(Math.floor(((i % width) / width) * 250), Math.floor((Math.floor(i / width) / height) * 250), 128),
  ),
})

describe('a band bent round a wrist', () => {
  it('is as wide as its circle and, seen level, as high as the band', () => {
    const size = bentSize({ width: 300, height: 40 }, { roundPx: 314.159, tilt: 0, scale: 2 })
    expect([size.width, size.height]).toEqual([200, 80])
  })
  it('shows in the middle what lies a quarter turn further when it is turned by a quarter', () => {
    const picture = flat(400, 20)
    const at = (turn: number) => {
      const bent = bendBand(picture, { roundPx: 400, turn, tilt: 0, scale: 1, ground: GROUND, gap: GAP })
      return bent.pixels[10 * bent.width + Math.floor(bent.width / 2)]! & 255
    }
    // A quarter of 400 px is 100 of the picture: red 62 of 250; half is 125.
    expect(at(Math.PI / 2)).toBeCloseTo(62, -1)
    expect(at(Math.PI)).toBeCloseTo(125, -1)
  })
  it('leaves the gap for the closure, and shows the inside when looked into from above', () => {
    const bent = bendBand(
      { width: 300, height: 20, pixels: new Int32Array(6000).fill(WHITE) },
      { roundPx: 400, turn: Math.PI * 1.75, tilt: 0.5, scale: 1, ground: GROUND, gap: GAP },
    )
    const colours = new Set(bent.pixels)
    expect(colours.has(GROUND)).toBe(true)
    expect([...colours].some((p) => (p & 255) === 0 && ((p >> 16) & 255) > 60)).toBe(true)
    const lights = [...colours].filter((p) => p !== GROUND && (p & 255) > 60).map((p) => p & 255)
    expect(Math.max(...lights)).toBeGreaterThan(200)
    expect(Math.min(...lights)).toBeLessThan(120)
  })
})

describe('a tube turned', () => {
  it('is as high as its diameter, brightest in the middle, and comes round after a whole turn', () => {
    const picture = flat(50, 63)
    const bend = { roundPx: 63, turn: 0.7, tilt: 0, scale: 1, ground: GROUND, gap: GAP }
    const one = turnTube(picture, bend)
    expect(one.height).toBe(Math.ceil(63 / Math.PI))
    expect([...turnTube(picture, { ...bend, turn: 0.7 + 2 * Math.PI }).pixels]).toEqual([...one.pixels])
    const blue = (y: number) => (one.pixels[y * one.width + 5]! >> 16) & 255
    expect(blue(10)).toBeGreaterThan(blue(1))
  })
})

describe('ways of seeing', () => {
  it('keep greys, and bring red and green together without red or green cones', () => {
    for (const vision of VISIONS) expect(difference(asSeen('#808080', vision), '#808080')).toBeLessThan(2)
    expect(asSeen('#c04030', 'all')).toBe('#c04030')
    const apart = (vision: (typeof VISIONS)[number]) =>
      difference(asSeen('#a04030', vision), asSeen('#5f6a30', vision))
    expect(apart('green-weak')).toBeLessThan(apart('all') / 2)
    expect(apart('red-weak')).toBeLessThan(apart('all') / 2)
    expect(difference(asSeen('#ff0000', 'grey'), asSeen('#00ff00', 'grey'))).toBeGreaterThan(10)
  })
})
