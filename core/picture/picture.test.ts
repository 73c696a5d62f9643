import { PNG } from 'pngjs'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyPiece, bead, part, rows } from '../../tests/fixture/piece'
import { GLYPH_IDS, glyphDistance, glyphSvg } from '../bead/glyph'
import { FINISHES } from '../bead/bead'
import { columnsOf, rowsOf } from '../piece/piece'
import { beadPixels, lookOf, meanPixel } from './look'
import { pictureOf } from './picture'
import { paint } from './raster'
import { makeSprites, turnedSprite } from './sprite'
import { rectOfCell, sizeOnScreen, type View } from './view'

const options = { ground: { r: 207, g: 198, b: 184 }, glyphs: false, nap: 4 }
const tray = [
  bead(1, { colour: '#ff0000', finish: 'matte' }),
  bead(2, { colour: '#00ff00', finish: 'matte' }),
  bead(3, { colour: '#0000ff', finish: 'matte' }),
]
const blank = (width: number, height: number) => ({ width, height, pixels: new Int32Array(width * height) })

describe('the picture as PNG (ISO/IEC 15948), decoded by another library', () => {
  it('has the size of the work and each bead’s own colour in its middle', () => {
    const p = part({ start: rows('AAAA'), repeat: rows('ABCA', 'CCAB'), end: rows('BBBB'), times: 2 })
    for (const lie of ['level', 'upright'] as const) {
      const png = PNG.sync.read(
        Buffer.from(pictureOf(p, tray, { lie, scale: 10, ground: '#cfc6b8', glyphs: false, margin: 5 })),
      )
      const size = sizeOnScreen(p, { lie, scale: 10 })
      expect([png.width, png.height]).toEqual([Math.ceil(size.width) + 10, Math.ceil(size.height) + 10])
      for (let r = 0; r < rowsOf(p); r++) {
        for (let c = 0; c < columnsOf(p); c++) {
          const box = rectOfCell(p, { lie, scale: 10, x: 5, y: 5 }, c, r)
          const at = (Math.round(box.y + box.height / 2) * png.width + Math.round(box.x + box.width / 2)) * 4
          const [red, green, blue] = [png.data[at]!, png.data[at + 1]!, png.data[at + 2]!]
          const brightest = ['A', 'B', 'C'][[red, green, blue].indexOf(Math.max(red, green, blue))]
          const wanted = ['A', 'B', 'C'][
            (r === 0 ? [1, 1, 1, 1] : r === 5 ? [2, 2, 2, 2] : r % 2 === 1 ? [1, 2, 3, 1] : [3, 3, 1, 2])[c]! - 1
          ]
          expect(`${c},${r}: ${brightest}`).toBe(`${c},${r}: ${wanted}`)
        }
      }
    }
  })
  it('is cut off where it is told to', () => {
    const png = PNG.sync.read(
      Buffer.from(
        pictureOf(part({ times: 50 }), tray, {
          lie: 'level',
          scale: 10,
          ground: '#ffffff',
          glyphs: true,
          margin: 5,
          most: { width: 200, height: 40 },
        }),
      ),
    )
    expect([png.width, png.height]).toEqual([200, 40])
  })
})

describe('painting in pieces', () => {
  it('gives the same pixels as painting all at once, at any zoom and either way', () => {
    fc.assert(
      fc.property(
        anyPiece,
        fc.constantFrom(0.4, 1.3, 2.6, 4.1, 7.7, 15),
        fc.constantFrom('level' as const, 'upright' as const),
        fc.integer({ min: -40, max: 60 }),
        fc.integer({ min: -40, max: 60 }),
        fc.integer({ min: 1, max: 79 }),
        fc.integer({ min: 1, max: 59 }),
        (p, scale, lie, x, y, cutX, cutY) => {
          const view: View = { lie, scale, x, y }
          const sprites = makeSprites(tray, scale, options)
          const whole = blank(80, 60)
          paint(whole, { x: 0, y: 0, width: 80, height: 60 }, p.parts[0]!, view, sprites)
          const pieces = blank(80, 60)
          for (const [px, py, w, h] of [
            [0, 0, cutX, cutY],
            [cutX, 0, 80 - cutX, cutY],
            [0, cutY, cutX, 60 - cutY],
            [cutX, cutY, 80 - cutX, 60 - cutY],
          ] as const) {
            paint(pieces, { x: px, y: py, width: w, height: h }, p.parts[0]!, view, sprites)
          }
          expect(Buffer.from(pieces.pixels.buffer).equals(Buffer.from(whole.pixels.buffer))).toBe(true)
        },
      ),
    )
  })
  it('leaves nothing unpainted and nothing outside', () => {
    const surface = blank(50, 40)
    expect(
      paint(
        surface,
        { x: -10, y: -10, width: 200, height: 200 },
        part(),
        { lie: 'level', scale: 8, x: 3, y: 3 },
        makeSprites(tray, 8, options),
      ),
    ).toBeGreaterThan(0)
    expect(surface.pixels.every((p) => p !== 0)).toBe(true)
    expect(
      paint(
        surface,
        { x: 60, y: 0, width: 10, height: 10 },
        part(),
        { lie: 'level', scale: 8, x: 3, y: 3 },
        makeSprites(tray, 8, options),
      ),
    ).toBe(0)
  })
})

describe('how beads look', () => {
  it('finishes differ clearly from each other in the same colour', () => {
    const pictures = FINISHES.map((finish) =>
      beadPixels(lookOf(bead(1, { colour: '#3a6ea5', finish }), options), options.ground, 20, 24, 'down'),
    )
    for (let i = 0; i < pictures.length; i++) {
      for (let j = 0; j < i; j++) {
        let sum = 0
        for (let k = 0; k < pictures[i]!.length; k++)
          for (const shift of [0, 8, 16])
            sum += Math.abs(((pictures[i]![k]! >> shift) & 255) - ((pictures[j]![k]! >> shift) & 255))
        expect(`${FINISHES[i]} / ${FINISHES[j]}: ${sum / pictures[i]!.length > 9}`).toBe(
          `${FINISHES[i]} / ${FINISHES[j]}: true`,
        )
      }
    }
  })
  it('from afar a pale bead is lighter than the mat that it lies on, and a dark one darker', () => {
    const light = (colour: string, ground: { r: number; g: number; b: number }) => {
      const p = meanPixel(lookOf(bead(1, { colour, finish: 'lustre' }), options), ground)
      return ((p & 255) + ((p >> 8) & 255) + ((p >> 16) & 255) - (ground.r + ground.g + ground.b)) / 3
    }
    expect(light('#e9e4d6', { r: 207, g: 199, b: 183 })).toBeGreaterThan(15)
    expect(light('#1f3550', { r: 207, g: 199, b: 183 })).toBeLessThan(-60)
  })
  it('every glyph is its own: no two cover the same places', () => {
    const inked = GLYPH_IDS.map((id) => {
      let bits = ''
      for (let y = 0; y < 12; y++)
        for (let x = 0; x < 12; x++) bits += glyphDistance(id, (x + 0.5) / 12, (y + 0.5) / 12) < 0 ? '1' : '0'
      return bits
    })
    for (let i = 0; i < inked.length; i++) {
      expect(inked[i]).toContain('1')
      expect(glyphSvg(GLYPH_IDS[i]!, '#000')).toContain('#000')
      for (let j = 0; j < i; j++) {
        let differ = 0
        for (let k = 0; k < 144; k++) if (inked[i]![k] !== inked[j]![k]) differ++
        expect(`${GLYPH_IDS[i]} / ${GLYPH_IDS[j]}: ${differ >= 6}`).toBe(`${GLYPH_IDS[i]} / ${GLYPH_IDS[j]}: true`)
      }
    }
  })

  it('draws turned beads alike, whichever of them came first', () => {
    const of = (...turns: number[]) => {
      const sprites = makeSprites([bead(1)], 7.3, { ground: { r: 200, g: 190, b: 180 }, glyphs: false, nap: 3 })
      return turns.map((turn) => [...turnedSprite(sprites, 1, 14, 14, 11.7, 9.5, turn, 'across', 1)]).at(-1)!
    }
    expect(of(10.4)).toEqual(of(9.6, 10.4))
    expect(of(10.4)).not.toEqual(of(40))
  })
})
