import { buildPaletteSync, utils } from 'image-q'
import { encode } from 'fast-png'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { part, piece } from '../../tests/fixture/piece'
import { bead } from '../../tests/fixture/bead'
import { emptyCells } from '../grid/cells'
import { latticeOf } from '../piece/drawing'
import { numberAt, type Part } from '../piece/piece'
import { applySteps, invertSteps } from '../piece/step'
import { valueOf } from '../problem'
import { requireTechnique } from '../technique/registry'
import { neighbourOffsets } from '../technique/lattice'
import { deltaE00 } from '../colour/ciede2000'
import { rgbOf } from '../colour/colour'
import { cieLab, LINEAR } from '../colour/spaces'
import { BAYER_8 } from '../pattern/bayer'
import { MOST_BYTES, readImageHead } from './head'
import { matchCells, meanDeltaE, paletteLab, tidied } from './match'
import { pictureBeads, pictureSteps, type PictureWish } from './picture-plan'
import { chooseColours, toOkLab } from './quantise'
import { middleCrop, proportionOf, sampleCells, turned, type Pixels } from './sample'

const pixelsOf = (
  width: number,
  height: number,
  at: (x: number, y: number) => readonly [number, number, number, number?],
): Pixels => {
  const data = new Uint8ClampedArray(width * height * 4)
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const [r, g, b, a = 255] = at(x, y)
      data.set([r, g, b, a], (y * width + x) * 4)
    }
  return { width, height, data }
}
const blank = (technique: string, columns: number, height: number, spec = 'cylinder-11'): Part => {
  const none = emptyCells(columns, 0)
  return part({
    technique,
    spec,
    settings: requireTechnique(technique).settings.parse({}),
    start: none,
    repeat: emptyCells(columns, height, 1),
    end: none,
    times: 1,
  })
}
const box = (columns: number, rows: number) => ({ c: 0, r: 0, columns, rows })

describe('the head of a picture', () => {
  const png = encode({ width: 3, height: 2, data: new Uint8Array(24), channels: 4 })
  const codeOf = (bytes: Uint8Array) => {
    const read = readImageHead(bytes)
    return read.ok ? 'good' : read.problems[0]!.code
  }
  const wide = (width: number, height: number) => {
    const bytes = png.slice()
    new DataView(bytes.buffer).setUint32(16, width)
    new DataView(bytes.buffer).setUint32(20, height)
    return bytes
  }
  it('of a PNG is its size (ISO/IEC 15948)', () =>
    expect(valueOf(readImageHead(png))).toEqual({ format: 'png', width: 3, height: 2 }))
  it('of a JPEG stands in its frame header (ISO/IEC 10918-1)', () => {
    const jpeg = Uint8Array.from([
      0xff, 0xd8, 0xff, 0xe0, 0, 4, 0, 0, 0xff, 0xc2, 0, 11, 8, 0x01, 0x2c, 0x02, 0x58, 1, 1, 0x11, 0, 0xff, 0xd9,
    ])
    expect(valueOf(readImageHead(jpeg))).toEqual({ format: 'jpeg', width: 600, height: 300 })
    expect(codeOf(jpeg.slice(0, 20))).toBe('image-cut')
  })
  it('of a WebP stands in its first chunk, in each of three ways (RFC 9649)', () => {
    const webp = (chunk: string, rest: readonly number[]) =>
      Uint8Array.from(
        [...'RIFF']
          .map((c) => c.charCodeAt(0))
          .concat(
            [22 + rest.length - 10, 0, 0, 0],
            [...`WEBP${chunk}`].map((c) => c.charCodeAt(0)),
            [10, 0, 0, 0],
            rest,
          ),
      )
    expect(valueOf(readImageHead(webp('VP8X', [0, 0, 0, 0, 99, 0, 0, 49, 0, 0])))).toMatchObject({
      width: 100,
      height: 50,
    })
    expect(valueOf(readImageHead(webp('VP8 ', [0, 0, 0, 0x9d, 0x01, 0x2a, 100, 0, 50, 0])))).toMatchObject({
      width: 100,
      height: 50,
    })
    const bits = 99 | (49 << 14)
    expect(
      valueOf(
        readImageHead(
          webp('VP8L', [0x2f, bits & 255, (bits >> 8) & 255, (bits >> 16) & 255, bits >>> 24, 0, 0, 0, 0, 0]),
        ),
      ),
    ).toMatchObject({ width: 100, height: 50 })
    expect(codeOf(webp('VP8X', [0, 0, 0, 0, 99, 0, 0, 49, 0, 0]).slice(0, 29))).toBe('image-cut')
  })
  it('refuses what is too large, cut off, empty or no picture', () => {
    expect(codeOf(wide(20_000, 10))).toBe('image-large')
    expect(codeOf(wide(12_000, 12_000))).toBe('image-large')
    expect(codeOf(wide(0, 10))).toBe('image-cut')
    expect(codeOf(png.slice(0, png.length - 20))).toBe('image-cut')
    expect(codeOf(png.slice(0, 20))).toBe('image-cut')
    expect(codeOf(new TextEncoder().encode('<svg xmlns="http://www.w3.org/2000/svg"/>'))).toBe('image-format')
    expect(codeOf(new Uint8Array(0))).toBe('image-format')
    expect(codeOf(new Uint8Array(MOST_BYTES + 1))).toBe('image-heavy')
  })
  it('of any bytes is read without an error', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(
          [],
          [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a],
          [0xff, 0xd8, 0xff],
          [0x52, 0x49, 0x46, 0x46, 9, 0, 0, 0, 0x57, 0x45, 0x42, 0x50],
        ),
        fc.uint8Array({ maxLength: 200 }),
        (start, rest) => {
          readImageHead(Uint8Array.from([...start, ...rest]))
        },
      ),
    )
  })
})

describe('sampling', () => {
  it('takes the pixels under each cell in its true proportion: a half-black picture splits the columns', () => {
    const p = blank('loom', 10, 6)
    const pixels = pixelsOf(200, 90, (x) => (x < 100 ? [0, 0, 0] : [255, 255, 255]))
    const cells = sampleCells(pixels, latticeOf(p), {
      box: box(10, 6),
      lie: 'upright',
      crop: { x: 0, y: 0, width: 200, height: 90 },
      brightness: 0,
      contrast: 0,
    })
    for (let r = 0; r < 6; r++)
      for (let c = 0; c < 10; c++) expect(cells[(r * 10 + c) * 3]).toBeCloseTo(c < 5 ? 0 : 1, 5)
    // With the band lying level the picture's x runs along its length.
    const level = sampleCells(pixels, latticeOf(p), {
      box: box(10, 6),
      lie: 'level',
      crop: { x: 0, y: 0, width: 200, height: 90 },
      brightness: 0,
      contrast: 0,
    })
    for (let r = 0; r < 6; r++)
      for (let c = 0; c < 10; c++) expect(level[(r * 10 + c) * 3]).toBeCloseTo(r < 3 ? 0 : 1, 5)
  })
  it('samples staggered columns staggered: on a slope every bead takes the grey of its own height', () => {
    const p = blank('peyote', 4, 8)
    const lattice = latticeOf(p)
    const pixels = pixelsOf(40, 340, (_, y) => {
      const v = Math.round((y / 340) * 255)
      return [v, v, v]
    })
    const cells = sampleCells(pixels, lattice, {
      box: box(4, 8),
      lie: 'upright',
      crop: { x: 0, y: 0, width: 40, height: 340 },
      brightness: 0,
      contrast: 0,
    })
    // Upright, rows rise: column 1 lies half a bead higher than column 0, so it is darker by half a step.
    for (let r = 0; r < 7; r++) {
      expect(cells[(r * 4 + 1) * 3]!).toBeLessThan(cells[r * 4 * 3]!)
      expect(cells[(r + 1) * 4 * 3]!).toBeLessThan(cells[(r * 4 + 1) * 3]!)
    }
  })
  it('means are of light, not of levels; see-through cells are none', () => {
    const p = blank('loom', 2, 1)
    const pixels = pixelsOf(4, 2, (x, y) => (x >= 2 ? [9, 9, 9, 0] : (x + y) % 2 ? [255, 255, 255] : [0, 0, 0]))
    const cells = sampleCells(pixels, latticeOf(p), {
      box: box(2, 1),
      lie: 'upright',
      crop: { x: 0, y: 0, width: 4, height: 2 },
      brightness: 0,
      contrast: 0,
    })
    expect(cells[0]).toBeCloseTo(0.5, 6)
    expect(cells[3]).toBe(-1)
  })
  it('the crop has the proportion of the work: cylinder 11/0 cells are 1.3 × 1.6 mm', () => {
    const p = blank('square', 16, 13)
    expect(proportionOf(latticeOf(p), box(16, 13), 'upright')).toBeCloseTo(1, 9)
    expect(proportionOf(latticeOf(p), box(16, 26), 'level')).toBeCloseTo(2, 9)
    expect(middleCrop({ width: 300, height: 100 }, 1)).toEqual({ x: 100, y: 0, width: 100, height: 100 })
  })
  it('turned four times by a quarter is as before; once, the corner moves clockwise', () => {
    const pixels = pixelsOf(3, 2, (x, y) => [x * 80, y * 200, 7])
    expect([...turned(turned(turned(turned(pixels, 1), 1), 1), 1).data]).toEqual([...pixels.data])
    const once = turned(pixels, 1)
    expect([once.width, once.height, once.data[4 * 1]]).toEqual([2, 3, 0])
    expect([...turned(pixels, 3).data]).toEqual([...turned(turned(pixels, 2), 1).data])
  })
})

const scene = pixelsOf(96, 64, (x, y) => [
  Math.round(127 + 120 * Math.sin(x / 15)),
  Math.round((255 * y) / 64),
  Math.round(127 + 100 * Math.cos((x + y) / 19)),
])
const labOf = (pixels: Pixels) => {
  const p = blank('loom', pixels.width, pixels.height, 'cube-3-mm')
  const cells = sampleCells(pixels, latticeOf(p), {
    box: box(pixels.width, pixels.height),
    lie: 'upright',
    crop: { x: 0, y: 0, width: pixels.width, height: pixels.height },
    brightness: 0,
    contrast: 0,
  })
  return { cells, lab: toOkLab(cells) }
}

describe('choosing colours', () => {
  it('finds the colours of a picture that has few, the commonest first', () => {
    const { lab } = labOf(pixelsOf(30, 10, (x) => (x < 20 ? [200, 30, 30] : x < 27 ? [30, 30, 200] : [240, 240, 230])))
    expect(chooseColours(lab, 3)).toEqual(['#c81e1e', '#1e1ec8', '#f0f0e6'])
    expect(chooseColours(lab, 8)).toHaveLength(3)
  })
  it('errs little more than a quantiser from the registry does on the same picture', () => {
    const { cells, lab } = labOf(scene)
    for (const k of [8, 32]) {
      const own = chooseColours(lab, k)
      const theirs = buildPaletteSync([utils.PointContainer.fromUint8Array(scene.data, scene.width, scene.height)], {
        colors: k,
        paletteQuantization: 'wuquant',
        colorDistanceFormula: 'euclidean',
      })
        .getPointContainer()
        .getPointArray()
        .map((q) => `#${[q.r, q.g, q.b].map((v) => v.toString(16).padStart(2, '0')).join('')}`)
      const error = (colours: readonly string[]) =>
        meanDeltaE(cells, matchCells(lab, scene.width, scene.height, paletteLab(colours), 'off'), colours)
      expect(error(own)).toBeLessThan(error(theirs) * 1.1)
    }
  })
  it('errs less the more colours there are', () => {
    const { cells, lab } = labOf(scene)
    const errors = [2, 4, 8, 16, 32].map((k) => {
      const own = chooseColours(lab, k)
      return meanDeltaE(cells, matchCells(lab, 96, 64, paletteLab(own), 'off'), own)
    })
    for (let i = 1; i < errors.length; i++) expect(errors[i]!).toBeLessThan(errors[i - 1]!)
  })
})

/** Every bead by ΔE00, none left out: the twin of the quick search. */
function fullSearch(cells: Float32Array, colours: readonly string[]): Uint16Array {
  const beads = new Float64Array(colours.length * 3)
  colours.forEach((hex, i) => {
    const { r, g, b } = rgbOf(hex)
    cieLab(LINEAR[r]!, LINEAR[g]!, LINEAR[b]!, beads, 3 * i)
  })
  const at = new Float64Array(3)
  return Uint16Array.from({ length: cells.length / 3 }, (_, k) => {
    cieLab(cells[3 * k]!, cells[3 * k + 1]!, cells[3 * k + 2]!, at, 0)
    let [best, least] = [0, Infinity]
    for (let i = 0; i < colours.length; i++) {
      const d = deltaE00(at[0]!, at[1]!, at[2]!, beads[3 * i]!, beads[3 * i + 1]!, beads[3 * i + 2]!)
      if (d < least) {
        least = d
        best = i
      }
    }
    return best + 1
  })
}

describe('matching', () => {
  it('without a mix comes within 2 % of a full search by ΔE00, where the nearest in OKLab is 6 to 13 % off', () => {
    const noise = (x: number, y: number): [number, number, number] => {
      const h = Math.imul(x * 374761393 + y * 668265263, 1274126177) >>> 0
      return [h & 255, (h >> 8) & 255, (h >> 16) & 255]
    }
    const pictures = [
      scene,
      pixelsOf(96, 64, (x, y) => noise(x, y)),
      // a warm portrait of soft shades, and a cold one of deep blues
      pixelsOf(96, 64, (x, y) => {
        const d = Math.hypot(x - 48, y - 32) / 58
        return [Math.round(236 - 120 * d), Math.round(186 - 110 * d), Math.round(150 - 90 * d)]
      }),
      pixelsOf(96, 64, (x, y) => [
        Math.round((40 * y) / 64),
        Math.round(30 + (90 * x) / 96),
        Math.round(120 + 130 * Math.abs(Math.sin((x - y) / 23))),
      ]),
    ]
    const palettes = [8, 32, 120].map((k) =>
      Array.from(
        { length: k },
        (_, n) =>
          `#${noise(n + 1, k)
            .map((v) => v.toString(16).padStart(2, '0'))
            .join('')}`,
      ),
    )
    for (const picture of pictures) {
      const { cells, lab } = labOf(picture)
      for (const colours of palettes) {
        const own = meanDeltaE(cells, matchCells(lab, 96, 64, paletteLab(colours), 'off'), colours)
        const best = meanDeltaE(cells, fullSearch(cells, colours), colours)
        expect(own).toBeLessThanOrEqual(best * 1.02)
      }
    }
  })
  it('a mix keeps the mean of a grey that no bead has; without it the whole turns one way', () => {
    const { lab } = labOf(pixelsOf(40, 40, () => [99, 99, 99]))
    const palette = paletteLab(['#000000', '#ffffff'])
    const wanted = lab[0]!
    for (const dither of ['ordered', 'diffused'] as const) {
      const numbers = matchCells(lab, 40, 40, palette, dither)
      const mean = numbers.reduce((sum, n) => sum + (n === 2 ? palette[3]! : palette[0]!), 0) / numbers.length
      expect(Math.abs(mean - wanted)).toBeLessThan(0.02)
    }
    expect(new Set(matchCells(lab, 40, 40, palette, 'off')).size).toBe(1)
  })
  it('thresholds hold every level once (Bayer 1973)', () => {
    expect(BAYER_8.toSorted((a, b) => a - b)).toEqual(Array.from({ length: 64 }, (_, n) => (n + 0.5) / 64))
    // The rule of Bayer: neighbours in a two-by-two block differ by at least a quarter.
    for (let y = 0; y < 8; y += 2)
      for (let x = 0; x < 8; x += 2)
        expect(Math.abs(BAYER_8[y * 8 + x]! - BAYER_8[(y + 1) * 8 + x + 1]!)).toBeGreaterThanOrEqual(0.25)
  })
  it('tidying takes single strays and nothing else', () => {
    const p = blank('peyote', 6, 6)
    const near = (c: number, r: number) => neighbourOffsets(latticeOf(p), c, r)
    const numbers = new Uint16Array(36).fill(1)
    numbers[14] = 2
    expect([...tidied(numbers, 6, near)]).toEqual([...new Uint16Array(36).fill(1)])
    numbers[15] = 2
    expect([...tidied(numbers, 6, near)]).toEqual([...numbers])
    numbers[35] = 0
    expect(tidied(numbers, 6, near)[35]).toBe(0)
  })
})

describe('a picture as beads', () => {
  const wish = (over: Partial<PictureWish> = {}): PictureWish => ({
    sample: {
      box: box(12, 8),
      lie: 'upright',
      crop: { x: 0, y: 0, width: 96, height: 64 },
      brightness: 0,
      contrast: 0,
    },
    to: { kind: 'choose', count: 4 },
    dither: 'off',
    tidy: false,
    ...over,
  })
  it('counts its beads, tells how far it is on, and is laid in one step that can be taken back', () => {
    const p = piece({ parts: [blank('peyote', 12, 8)] })
    const told: number[] = []
    const beads = pictureBeads(scene, latticeOf(p.parts[0]!), wish(), (s) => told.push(s))
    expect(beads.counts.reduce((a, b) => a + b, 0)).toBe(96)
    expect(told).toEqual(told.toSorted((a, b) => a - b))
    expect(beads.meanDeltaE).toBeGreaterThan(0)
    const steps = pictureSteps(p, p.parts[0]!, box(12, 8), beads, { kind: 'choose', finish: 'matte' })
    const next = valueOf(applySteps(p, steps))
    expect(next.tray.slice(3).map((b) => [b.colour, b.finish])).toEqual(beads.colours.map((c) => [c, 'matte']))
    for (let r = 0; r < 8; r++)
      for (let c = 0; c < 12; c++)
        expect(next.tray.find((b) => b.number === numberAt(next.parts[0]!, c, r))!.colour).toBe(
          beads.colours[beads.numbers[r * 12 + c]! - 1],
        )
    expect(valueOf(applySteps(next, invertSteps(steps))).tray).toEqual(p.tray)
  })
  it('to the tray brings nothing new; from the box brings what is used', () => {
    const tray = [bead(1, { colour: '#101010' }), bead(2, { colour: '#e0e0e0' })]
    const p = piece({ tray, parts: [blank('loom', 12, 8)] })
    const toTray = pictureBeads(
      scene,
      latticeOf(p.parts[0]!),
      wish({ to: { kind: 'colours', colours: tray.map((b) => b.colour) }, dither: 'diffused' }),
    )
    expect(
      pictureSteps(p, p.parts[0]!, box(12, 8), toTray, { kind: 'tray', numbers: [1, 2] }).every(
        (s) => s.type === 'cells',
      ),
    ).toBe(true)
    const own = [
      { name: 'Coal', colour: '#0f0f0f', finish: 'matte' as const, spec: 'round-8' },
      { name: 'Never', colour: '#00ff00', finish: 'matte' as const, spec: 'round-8' },
    ]
    const black = pictureBeads(
      pixelsOf(9, 9, () => [10, 10, 10]),
      latticeOf(p.parts[0]!),
      wish({
        sample: { ...wish().sample, crop: { x: 0, y: 0, width: 9, height: 9 } },
        to: { kind: 'colours', colours: own.map((b) => b.colour) },
      }),
    )
    const next = valueOf(applySteps(p, pictureSteps(p, p.parts[0]!, box(12, 8), black, { kind: 'box', beads: own })))
    expect(next.tray.slice(2).map((b) => [b.name, b.spec])).toEqual([['Coal', 'cylinder-11']])
  })
})
