import type { TrayBead } from '#core/bead/bead'
import { placeOfIndex, type Lines } from '#core/grid/lines'
import { columnsOf, rowsOf, SECTIONS, sectionStart, type Part } from '#core/piece/piece'
import { largestGrowth, makeSprites, type PaintOptions, type Sprites } from '#core/picture/sprite'
import { freeOf } from '#core/piece/drawing'
import { rectOfCell, type PixelRect, type View } from '#core/picture/view'
import { paintWhole } from '#core/picture/whole'
import { fadedTray } from '#core/picture/fade'
import type { Whole } from '#core/piece/joint'

/** What is to be shown; lengths in device pixels. */
export interface Scene {
  readonly part: Part
  /** All parts as they lie, the one in hand by its view; null where it is the only one. */
  readonly whole: Whole | null
  readonly tray: readonly TrayBead[]
  readonly view: View
  readonly options: PaintOptions
}

/** Where pixels go: a 2D canvas context, or a stand-in in tests. */
export interface Target {
  putImageData(
    image: ImageData,
    x: number,
    y: number,
    dirtyX: number,
    dirtyY: number,
    dirtyWidth: number,
    dirtyHeight: number,
  ): void
}

type Painted = 'nothing' | 'all' | 'pan' | 'parts'

interface Buffer {
  readonly width: number
  readonly height: number
  readonly pixels: Int32Array
  readonly image: ImageData
}

/** More changed cells than this and the whole is painted anew. */
const MOST_PARTS = 4000

/**
 * Keeps the pixels of the mat and brings them up to date with as little work as it can: nothing, only the cells that
 * changed, only the strips that a pan uncovered, or all.
 */
export function makePainter() {
  let buffer: Buffer | null = null
  let last: Scene | null = null
  let sprites: Sprites | null = null
  /** Of the parts that are not in hand: paler. */
  let pale: Sprites | null = null

  function resize(width: number, height: number): void {
    if (buffer?.width === width && buffer.height === height) return
    const pixels = new Int32Array(width * height)
    buffer = { width, height, pixels, image: new ImageData(new Uint8ClampedArray(pixels.buffer), width, height) }
    last = null
  }

  const paintInto = (rect: PixelRect, scene: Scene) => paintWhole(buffer!, rect, scene, sprites!, pale ?? sprites!)

  function draw(target: Target, rect: PixelRect, scene: Scene): void {
    if (!buffer || !sprites) return
    paintInto(rect, scene)
    target.putImageData(buffer.image, 0, 0, rect.x, rect.y, rect.width, rect.height)
  }

  function pan(target: Target, scene: Scene, dx: number, dy: number): void {
    const { width, height, pixels, image } = buffer!
    // Rows are moved in the order that does not overwrite what is still to be read.
    const rows = Math.max(0, height - Math.abs(dy))
    const length = Math.max(0, width - Math.abs(dx))
    for (let k = 0; k < rows; k++) {
      const y = dy > 0 ? height - 1 - k : k
      const from = (y - dy) * width + (dx > 0 ? 0 : -dx)
      pixels.copyWithin(y * width + (dx > 0 ? dx : 0), from, from + length)
    }
    const strip = (rect: PixelRect) => {
      if (rect.width > 0 && rect.height > 0) paintInto(rect, scene)
    }
    strip(dx > 0 ? { x: 0, y: 0, width: dx, height } : { x: width + dx, y: 0, width: -dx, height })
    strip(dy > 0 ? { x: 0, y: 0, width, height: dy } : { x: 0, y: height + dy, width, height: -dy })
    target.putImageData(image, 0, 0, 0, 0, width, height)
  }

  /** Brings the target to the scene; says how. */
  function show(target: Target, scene: Scene): Painted {
    if (!buffer) return 'nothing'
    const before = last
    last = scene
    const sameTray =
      before !== null &&
      sprites !== null &&
      before.tray === scene.tray &&
      before.options.glyphs === scene.options.glyphs &&
      before.options.nap === scene.options.nap &&
      sameColour(before.options, scene.options)
    const sameLook =
      sameTray &&
      before.view.scale === scene.view.scale &&
      before.view.lie === scene.view.lie &&
      sameFlip(before.view, scene.view)
    const { scale } = scene.view
    if (!sameTray || before.view.scale !== scale) {
      sprites = makeSprites(scene.tray, scale, scene.options, sameTray ? sprites! : undefined)
      pale = sameTray && pale ? makeSprites(pale.tray, scale, pale.options, pale) : null
    }
    if (scene.whole)
      pale ??= makeSprites(fadedTray(scene.tray, scene.options.ground), scale, { ...scene.options, bare: true })
    const all: PixelRect = { x: 0, y: 0, width: buffer.width, height: buffer.height }
    if (!sameLook || !sameShape(before.part, scene.part) || !sameBeside(before, scene)) {
      draw(target, all, scene)
      return 'all'
    }
    const dx = scene.view.x - before.view.x
    const dy = scene.view.y - before.view.y
    if (before.part === scene.part) {
      if (dx === 0 && dy === 0) return 'nothing'
      if (
        Number.isInteger(dx) &&
        Number.isInteger(dy) &&
        Math.abs(dx) < buffer.width / 2 &&
        Math.abs(dy) < buffer.height / 2
      ) {
        pan(target, scene, dx, dy)
        return 'pan'
      }
      draw(target, all, scene)
      return 'all'
    }
    const rects =
      dx === 0 && dy === 0
        ? changedRects(before.part, scene.part, scene.view, all, largestGrowth(scene.tray, scene.part))
        : null
    if (!rects) {
      draw(target, all, scene)
      return 'all'
    }
    for (const rect of rects) draw(target, rect, scene)
    return 'parts'
  }

  return { resize, show }
}

const sameColour = (a: PaintOptions, b: PaintOptions): boolean =>
  a.ground.r === b.ground.r && a.ground.g === b.ground.g && a.ground.b === b.ground.b

const sameFlip = (a: View, b: View): boolean =>
  (a.flip?.across ?? false) === (b.flip?.across ?? false) && (a.flip?.along ?? false) === (b.flip?.along ?? false)

/** Whether the parts that are not in hand are what they were, and lie where they lay. */
function sameBeside({ whole: a, part }: Scene, { whole: b, part: other }: Scene): boolean {
  if (a === b && part.id === other.id) return true
  return (
    a !== null &&
    b !== null &&
    part.id === other.id &&
    a.placed.length === b.placed.length &&
    a.ties.length === b.ties.length &&
    a.placed.every((p, k) => {
      const q = b.placed[k]!
      return (
        (p.part === q.part || (p.part.id === part.id && q.part.id === part.id)) &&
        p.turn === q.turn &&
        p.x === q.x &&
        p.y === q.y &&
        p.width === q.width &&
        p.length === q.length
      )
    }) &&
    a.ties.every((t, k) => {
      const u = b.ties[k]!
      return (
        t.kind === u.kind && t.from.x === u.from.x && t.from.y === u.from.y && t.to.x === u.to.x && t.to.y === u.to.y
      )
    })
  )
}

/** Whether only cells differ: same stitch, size and counts, so that no bead has moved. */
function sameShape(a: Part, b: Part): boolean {
  return (
    a === b ||
    (a.technique === b.technique &&
      a.spec === b.spec &&
      a.times === b.times &&
      a.settings === b.settings &&
      a.plan === b.plan &&
      columnsOf(a) === columnsOf(b) &&
      SECTIONS.every((s) => a[s].rows === b[s].rows && a[s].ends === b[s].ends))
  )
}

/** Indices of places that differ; blocks that are the same value are not looked into. */
function changedCells(a: Lines, b: Lines, most: number): number[] | null {
  const out: number[] = []
  let base = 0
  for (let k = 0; k < a.blocks.length; k++) {
    const one = a.blocks[k]!
    const other = b.blocks[k]!
    if (one !== other) {
      for (let i = 0; i < one.length; i++) {
        if (one[i] === other[i]) continue
        out.push(base + i)
        if (out.length > most) return null
      }
    }
    base += one.length
  }
  return out
}

const meets = (a: PixelRect, b: PixelRect): boolean =>
  a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height

function clipped(rect: PixelRect, within: PixelRect): PixelRect {
  const x = Math.max(rect.x, within.x)
  const y = Math.max(rect.y, within.y)
  return {
    x,
    y,
    width: Math.min(rect.x + rect.width, within.x + within.width) - x,
    height: Math.min(rect.y + rect.height, within.y + within.height) - y,
  }
}

/**
 * Rectangles to paint for the cells that differ, in every copy of the repeat that shows; null when painting all is
 * simpler.
 */
function changedRects(a: Part, b: Part, view: View, screen: PixelRect, grow = 1): PixelRect[] | null {
  // A bead of another size moves others.
  if (freeOf(a) !== freeOf(b)) return null
  const rects: PixelRect[] = []
  const rows = rowsOf(b)
  const isFree = freeOf(b) !== null
  for (const section of SECTIONS) {
    const cells = changedCells(a[section], b[section], MOST_PARTS)
    if (cells === null) return null
    if (cells.length === 0) continue
    const copies = section === 'repeat' ? b.times : 1
    for (let copy = 0; copy < copies; copy++) {
      const first = sectionStart(b, section, copy)
      for (const index of cells) {
        const place = placeOfIndex(b[section], index)
        const r = first + place.r
        if (r >= rows) continue
        const exact = rectOfCell(b, view, place.c, r, grow)
        const rect = isFree ? widened(exact) : exact
        if (meets(rect, screen)) rects.push(clipped(rect, screen))
        if (rects.length > MOST_PARTS) return null
      }
    }
  }
  return gathered(rects)
}

/** Beads that are turned any way are rounded to whole pixels: their edges reach up to one further. */
const widened = ({ x, y, width, height }: PixelRect): PixelRect => ({
  x: x - 1,
  y: y - 1,
  width: width + 2,
  height: height + 2,
})

/** Neighbouring rectangles as one, where that paints little that did not change. */
function gathered(rects: readonly PixelRect[]): PixelRect[] {
  const out: { rect: PixelRect; area: number }[] = []
  for (const rect of rects) {
    const last = out.at(-1)
    const area = rect.width * rect.height
    if (last) {
      const x = Math.min(last.rect.x, rect.x)
      const y = Math.min(last.rect.y, rect.y)
      const joined = {
        x,
        y,
        width: Math.max(last.rect.x + last.rect.width, rect.x + rect.width) - x,
        height: Math.max(last.rect.y + last.rect.height, rect.y + rect.height) - y,
      }
      if (joined.width * joined.height <= 3 * (last.area + area) + 600) {
        out[out.length - 1] = { rect: joined, area: last.area + area }
        continue
      }
    }
    out.push({ rect, area })
  }
  return out.map((o) => o.rect)
}
