import { describe, expect, it } from 'vitest'
import { pack } from './look'
import { strokeLine } from './stroke'

const surface = () => ({ width: 60, height: 40, pixels: new Int32Array(2400).fill(pack(255, 255, 255)) })
const RED = { r: 200, g: 0, b: 0 }
const all = { x0: 0, y0: 0, x1: 60, y1: 40 }
/** Pixels that are no longer the ground. */
const painted = (pixels: Int32Array): number[] =>
  [...pixels.keys()].filter((at) => (pixels[at]! & 0xffffff) !== 0xffffff)

describe('a line from point to point', () => {
  it('covers what lies within half its thickness, and nothing further off than that and a pixel', () => {
    for (const [a, b] of [
      [
        { x: 10, y: 10 },
        { x: 50, y: 30 },
      ],
      [
        { x: 20, y: 5 },
        { x: 20, y: 35 },
      ],
      [
        { x: 5, y: 20 },
        { x: 55, y: 20 },
      ],
      [
        { x: 50, y: 8 },
        { x: 12, y: 30 },
      ],
    ] as const) {
      const one = surface()
      strokeLine(one, all, [a, b], 6, RED)
      const long = Math.hypot(b.x - a.x, b.y - a.y)
      for (let at = 0; at < 2400; at++) {
        const p = { x: (at % 60) + 0.5, y: Math.floor(at / 60) + 0.5 }
        const t = ((p.x - a.x) * (b.x - a.x) + (p.y - a.y) * (b.y - a.y)) / long ** 2
        const near = {
          x: a.x + Math.max(0, Math.min(1, t)) * (b.x - a.x),
          y: a.y + Math.max(0, Math.min(1, t)) * (b.y - a.y),
        }
        const off = Math.hypot(p.x - near.x, p.y - near.y)
        const green = (one.pixels[at]! >> 8) & 255
        if (off < 2.4) expect(green).toBeLessThan(5)
        if (off > 3.6) expect(green).toBe(255)
      }
    }
  })
  it('is lit along its middle', () => {
    const one = surface()
    strokeLine(
      one,
      all,
      [
        { x: 0, y: 20 },
        { x: 60, y: 20 },
      ],
      12,
      RED,
    )
    const red = (y: number) => one.pixels[y * 60 + 30]! & 255
    expect(red(20)).toBeGreaterThan(red(16))
    expect(red(16)).toBeGreaterThan(red(15) - 1)
  })
  it('stays within the rectangle that is painted, and pieces join to the whole', () => {
    const points = [
      { x: 5, y: 5 },
      { x: 30, y: 35 },
      { x: 55, y: 5 },
    ]
    const whole = surface()
    strokeLine(whole, all, points, 4, RED)
    const tiled = surface()
    for (let x = 0; x < 60; x += 20)
      for (let y = 0; y < 40; y += 20) strokeLine(tiled, { x0: x, y0: y, x1: x + 20, y1: y + 20 }, points, 4, RED)
    expect(tiled.pixels).toEqual(whole.pixels)
    const part = surface()
    strokeLine(part, { x0: 10, y0: 10, x1: 20, y1: 20 }, points, 4, RED)
    for (const at of painted(part.pixels)) {
      expect(at % 60).toBeGreaterThanOrEqual(10)
      expect(at % 60).toBeLessThan(20)
      expect(Math.floor(at / 60)).toBeGreaterThanOrEqual(10)
      expect(Math.floor(at / 60)).toBeLessThan(20)
    }
  })
  it('thin as a hair is still seen, and a point is a dot', () => {
    const one = surface()
    strokeLine(
      one,
      all,
      [
        { x: 10, y: 20.5 },
        { x: 50, y: 20.5 },
      ],
      0.01,
      RED,
    )
    expect(painted(one.pixels).length).toBeGreaterThan(35)
    const dot = surface()
    strokeLine(
      dot,
      all,
      [
        { x: 30, y: 20 },
        { x: 30, y: 20 },
      ],
      6,
      RED,
    )
    expect(painted(dot.pixels).length).toBeGreaterThan(20)
    expect(painted(dot.pixels).length).toBeLessThan(50)
  })
  it('bends without a seam: along its middle it is lit alike, and nothing is painted twice', () => {
    const one = surface()
    const points = Array.from({ length: 9 }, (_, k) => ({
      x: 30 + 20 * Math.cos((Math.PI * k) / 8),
      y: 34 - 26 * Math.sin((Math.PI * k) / 8),
    }))
    strokeLine(one, all, points, 8, RED)
    const along = points.slice(1).flatMap(({ x, y }, k) =>
      [0.2, 0.5, 0.8].map((t) => ({
        x: points[k]!.x + t * (x - points[k]!.x),
        y: points[k]!.y + t * (y - points[k]!.y),
      })),
    )
    const reds = along.map(({ x, y }) => one.pixels[Math.floor(y) * 60 + Math.floor(x)]! & 255)
    // Half a pixel off the middle a line 8 across is hardly darker; a cap painted over it would be by a fifth.
    expect(Math.min(...reds)).toBeGreaterThan(0.97 * Math.max(...reds))
  })
})
