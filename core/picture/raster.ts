import { modulo } from '../modulo'
import { keyOf, placeOfKey } from '../grid/key'
import type { TrayBead } from '../bead/bead'
import { columnsOf, isGrid, partRow, rowsOf, voidsOf, type Part } from '../piece/piece'
import { freeOf } from '../piece/drawing'
import { halfBox, type Lattice, type Point } from '../technique/lattice'
import { paintPlaced } from './placed'
import { NAP_HEIGHT, NAP_WIDTH, ownSize, solidSprite, turnedSprite, type Sprites } from './sprite'
import { clipOf, DETAIL_PX, lay, stamp, type Clip, type Surface } from './surface'
import { axesOf, latticeOnScreen, type Axes, type Lie, type PixelRect, type View } from './view'

/** In a window of numbers: a place where the stitch has no bead at all. */
const VOID = 0xffff

/** Reach of the beads about their cells' plain places, mm. */
interface Span {
  readonly minX: number
  readonly maxX: number
  readonly minY: number
  readonly maxY: number
}

const spans = new WeakMap<Lattice, Span>()

function spanOf(lattice: Lattice): Span {
  let span = spans.get(lattice)
  if (!span) {
    let [minX, maxX, minY, maxY] = [Infinity, -Infinity, Infinity, -Infinity]
    for (const site of lattice.sites) {
      const half = halfBox(lattice, site.turnDegrees)
      minX = Math.min(minX, site.dx - half.x)
      maxX = Math.max(maxX, site.dx + half.x)
      minY = Math.min(minY, site.dy - half.y)
      maxY = Math.max(maxY, site.dy + half.y)
    }
    span = { minX, maxX, minY, maxY }
    spans.set(lattice, span)
  }
  return span
}

/**
 * Which cells can show in a rectangle of the screen, with a margin; counts of i and j on the screen. `more`: further
 * reach of large beads, mm.
 */
function visibleRange(
  lattice: Lattice,
  axes: Axes,
  rect: PixelRect,
  countI: number,
  countJ: number,
  step: number,
  more: Point,
) {
  // From afar every step-th bead stands for its neighbours: always the same ones, whichever part is painted.
  const aligned = (index: number) => Math.max(0, index - (step - 1) - modulo(index - (step - 1), step))
  const span = spanOf(lattice)
  const range = (
    from: number,
    to: number,
    zero: number,
    s: number,
    origin: number,
    pitch: number,
    min: number,
    max: number,
  ): [number, number] => {
    const a = (from - zero) / s
    const b = (to - zero) / s
    return [
      Math.floor((Math.min(a, b) - origin - max) / pitch) - 1,
      Math.ceil((Math.max(a, b) - origin - min) / pitch) + 2,
    ]
  }
  const [i0, i1] = range(
    rect.x,
    rect.x + rect.width,
    axes.x0,
    axes.sx,
    lattice.originX,
    lattice.pitchX,
    span.minX - more.x,
    span.maxX + more.x,
  )
  const [j0, j1] = range(
    rect.y,
    rect.y + rect.height,
    axes.y0,
    axes.sy,
    lattice.originY,
    lattice.pitchY,
    span.minY - more.y,
    span.maxY + more.y,
  )
  return { i0: aligned(i0), i1: Math.min(countI, i1), j0: aligned(j0), j1: Math.min(countJ, j1) }
}

/** Tray numbers of a window of the part, in screen order (j · count + i), every `step`-th. */
function readWindow(part: Part, lie: Lie, i0: number, i1: number, j0: number, j1: number, step: number): Uint16Array {
  const ni = Math.ceil((i1 - i0) / step)
  const nj = Math.ceil((j1 - j0) / step)
  const out = new Uint16Array(ni * nj)
  if (lie === 'upright') {
    for (let j = 0; j < nj; j++) {
      const row = partRow(part, j0 + j * step)
      for (let i = 0; i < ni; i++) out[j * ni + i] = row[i0 + i * step] ?? VOID
    }
  } else {
    for (let i = 0; i < ni; i++) {
      const row = partRow(part, i0 + i * step)
      for (let j = 0; j < nj; j++) out[j * ni + i] = row[j0 + j * step] ?? VOID
    }
  }
  const columns = columnsOf(part)
  // Behind the end of a line of its own length nothing was read.
  for (const key of isGrid(part) ? voidsOf(part) : []) {
    const { c, r } = placeOfKey(columns, key)
    const [i, j] = lie === 'level' ? [r, c] : [c, r]
    if (i >= i0 && i < i1 && j >= j0 && j < j1 && (i - i0) % step === 0 && (j - j0) % step === 0)
      out[((j - j0) / step) * ni + (i - i0) / step] = VOID
  }
  return out
}

function fillGround(surface: Surface, rect: PixelRect, view: Pick<View, 'x' | 'y'>, tile: Int32Array): void {
  const { width, pixels } = surface
  const shiftX = ((Math.round(-view.x) % NAP_WIDTH) + NAP_WIDTH) % NAP_WIDTH
  const shiftY = ((Math.round(-view.y) % NAP_HEIGHT) + NAP_HEIGHT) % NAP_HEIGHT
  for (let y = rect.y; y < rect.y + rect.height; y++) {
    const row = ((y + shiftY) % NAP_HEIGHT) * NAP_WIDTH
    let x = rect.x
    while (x < rect.x + rect.width) {
      const from = (x + shiftX) % NAP_WIDTH
      const length = Math.min(NAP_WIDTH - from, rect.x + rect.width - x)
      pixels.set(tile.subarray(row + from, row + from + length), y * width + x)
      x += length
    }
  }
}

/**
 * Left and right (or upper and lower) pixel edges of count cells for each site class: [class][2 · k], shared so that
 * beads tile.
 */
function edges(
  from: number,
  count: number,
  step: number,
  classes: number,
  edge: (index: number, cls: number) => [number, number],
): Int32Array {
  const out = new Int32Array(classes * count * 2)
  for (let cls = 0; cls < classes; cls++) {
    for (let k = 0; k < count; k++) {
      const [a, b] = edge(from + k * step, cls)
      out[(cls * count + k) * 2] = a
      out[(cls * count + k) * 2 + 1] = b
    }
  }
  return out
}

/** Beads of the tray that are not of the size that the grid is drawn for, by number. */
function oddSizes(tray: readonly TrayBead[], part: Part, lattice: Lattice): ReadonlyMap<number, Point> {
  const out = new Map<number, Point>()
  for (const bead of tray) {
    if (bead.spec === part.spec) continue
    const size = ownSize(bead, lattice.hole)
    if (Math.abs(size.x - lattice.beadX) > 1e-9 || Math.abs(size.y - lattice.beadY) > 1e-9) out.set(bead.number, size)
  }
  return out
}

/** Paints the ground of a rectangle of the screen; its nap moves with the work. */
export function paintGround(surface: Surface, rect: PixelRect, view: Pick<View, 'x' | 'y'>, sprites: Sprites): void {
  const clip = clipOf(surface, rect)
  if (!clip) return
  fillGround(
    surface,
    { x: clip.x0, y: clip.y0, width: clip.x1 - clip.x0, height: clip.y1 - clip.y0 },
    view,
    sprites.tile,
  )
}

/** Paints a rectangle of the screen: ground, then every bead that shows in it. Returns how many beads were drawn. */
export function paint(surface: Surface, rect: PixelRect, part: Part, view: View, sprites: Sprites): number {
  paintGround(surface, rect, view, sprites)
  return paintBeads(surface, rect, part, view, sprites)
}

/**
 * Paints every bead that shows in a rectangle of the screen over what is there. Cost follows the pixels and the
 * visible beads, not the size of the work. Returns how many beads were drawn.
 */
export function paintBeads(surface: Surface, rect: PixelRect, part: Part, view: View, sprites: Sprites): number {
  const clip = clipOf(surface, rect)
  if (!clip) return 0
  const free = freeOf(part)
  return free
    ? paintPlaced(surface, clip, { part, free, view, sprites })
    : paintLattice(surface, rect, clip, part, view, sprites)
}

/** Paints what shows of beads on a lattice. */
function paintLattice(
  surface: Surface,
  rect: PixelRect,
  clip: Clip,
  part: Part,
  view: View,
  sprites: Sprites,
): number {
  const lattice = latticeOnScreen(part, view.lie)
  const [countI, countJ] = view.lie === 'level' ? [rowsOf(part), columnsOf(part)] : [columnsOf(part), rowsOf(part)]
  const axes = axesOf(part, view)
  const pitchPx = Math.min(lattice.pitchX, lattice.pitchY) * view.scale
  const detailed = Math.min(lattice.beadX, lattice.beadY) * view.scale >= DETAIL_PX
  const step = pitchPx >= 2 || detailed ? 1 : Math.max(1, Math.ceil(2 / pitchPx))
  const odd = oddSizes(sprites.tray, part, lattice)
  const more = { x: 0, y: 0 }
  for (const size of odd.values()) {
    more.x = Math.max(more.x, (size.x - lattice.beadX) / 2, (size.y - lattice.beadX) / 2)
    more.y = Math.max(more.y, (size.y - lattice.beadY) / 2, (size.x - lattice.beadY) / 2)
  }
  const { i0, i1, j0, j1 } = visibleRange(lattice, axes, rect, countI, countJ, step, more)
  if (i1 <= i0 || j1 <= j0) return 0
  const ni = Math.ceil((i1 - i0) / step)
  const nj = Math.ceil((j1 - j0) / step)
  const numbers = readWindow(part, view.lie, i0, i1, j0, j1, step)
  if (sprites.options.bare) for (let k = 0; k < numbers.length; k++) if (numbers[k] === 0) numbers[k] = VOID
  const { period, sites } = lattice
  const turned = sites.some((site) => site.turnDegrees !== 0)
  const free: Free = { i0, j0, ni, nj, step, numbers, lattice, axes, clip, odd, wanted: turned ? 'all' : 'odd' }
  if (turned) return paintFree(surface, free, sprites, detailed)

  const spreadX = (step - 1) * lattice.pitchX
  const spreadY = (step - 1) * lattice.pitchY
  const edgesX = edges(i0, ni, step, period.rows, (i, cls) => {
    const site = sites[keyOf(period.columns, i % period.columns, cls)]!
    const left = lattice.originX + i * lattice.pitchX + site.dx - lattice.beadX / 2
    return between(
      Math.round(axes.x0 + left * axes.sx),
      Math.round(axes.x0 + (left + lattice.beadX + spreadX) * axes.sx),
    )
  })
  const edgesY = edges(j0, nj, step, period.columns, (j, cls) => {
    const site = sites[keyOf(period.columns, cls, j % period.rows)]!
    const top = lattice.originY + j * lattice.pitchY + site.dy - lattice.beadY / 2
    return between(
      Math.round(axes.y0 + top * axes.sy),
      Math.round(axes.y0 + (top + lattice.beadY + spreadY) * axes.sy),
    )
  })
  const field: Field = { i0, j0, ni, nj, step, numbers, edgesX, edgesY, period, clip }
  // Beads of other sizes lie over the rest, so they are left out here.
  const apart = odd.size > 0 && numbers.some((n) => odd.has(n))
  if (apart) {
    const plain = numbers.map((n) => (odd.has(n) ? VOID : n))
    const drawn = detailed
      ? paintSprites(surface, { ...field, numbers: plain }, sprites, ...lying(lattice, axes))
      : paintFlat(surface, { ...field, numbers: plain }, sprites.means, 0, nj)
    return drawn + paintFree(surface, free, sprites, detailed)
  }
  if (detailed) return paintSprites(surface, field, sprites, ...lying(lattice, axes))
  // Lines of beads that lie level and without gaps are painted a line of pixels at a time.
  const level = period.columns === 1 && lattice.beadX >= lattice.pitchX - 1e-9 && axes.sx > 0
  return level ? paintLevel(surface, field, sprites.means) : paintFlat(surface, field, sprites.means, 0, nj)
}

const between = (a: number, b: number): [number, number] => (a < b ? [a, b] : [b, a])

/**
 * How beads lie on the screen: which way their holes run, and whether the work grows with the other axis of the screen
 * or against it.
 */
const lying = ({ hole }: Lattice, { sx, sy }: Axes): ['across' | 'down', 1 | -1] =>
  hole === 'across' ? ['across', sy > 0 ? 1 : -1] : ['down', sx > 0 ? 1 : -1]

/** Beads drawn one by one at their own size and turn. */
interface Free {
  readonly i0: number
  readonly j0: number
  readonly ni: number
  readonly nj: number
  readonly step: number
  readonly numbers: Uint16Array
  readonly lattice: Lattice
  readonly axes: Axes
  readonly clip: Clip
  readonly odd: ReadonlyMap<number, Point>
  /** All beads, or only those of other sizes. */
  readonly wanted: 'all' | 'odd'
}

function paintFree(
  { width, pixels }: Surface,
  { i0, j0, ni, nj, step, numbers, lattice, axes, clip, odd, wanted }: Free,
  sprites: Sprites,
  detailed: boolean,
): number {
  const { period, sites } = lattice
  const { x0, y0, x1, y1 } = clip
  const [hole, way] = lying(lattice, axes)
  // One flip turns a lean over; two bring it back.
  const hand = axes.sx < 0 === axes.sy < 0 ? 1 : -1
  const plain = { x: lattice.beadX, y: lattice.beadY }
  const spreadX = (step - 1) * lattice.pitchX * axes.scale
  const spreadY = (step - 1) * lattice.pitchY * axes.scale
  // Boxes by site for the usual size, px.
  const boxes = sites.map((site) => {
    const half = halfBox(lattice, site.turnDegrees)
    return {
      w: Math.max(1, Math.round(2 * half.x * axes.scale)),
      h: Math.max(1, Math.round(2 * half.y * axes.scale)),
      turn: hand * site.turnDegrees,
    }
  })
  let drawn = 0
  for (let j = 0; j < nj; j++) {
    const rowJ = j0 + j * step
    const siteRow = (rowJ % period.rows) * period.columns
    const baseY = axes.y0 + axes.sy * (lattice.originY + rowJ * lattice.pitchY)
    for (let i = 0; i < ni; i++) {
      const number = numbers[j * ni + i]!
      if (number === VOID || (number === 0 && !detailed)) continue
      const size = odd.size > 0 ? odd.get(number) : undefined
      if (wanted === 'odd' && !size) continue
      const at = siteRow + ((i0 + i * step) % period.columns)
      const site = sites[at]!
      const box = boxes[at]!
      let { w, h } = box
      if (size) {
        const half = halfBox({ beadX: size.x, beadY: size.y }, site.turnDegrees)
        w = Math.max(1, Math.round(2 * half.x * axes.scale))
        h = Math.max(1, Math.round(2 * half.y * axes.scale))
      }
      const cx = axes.x0 + axes.sx * (lattice.originX + (i0 + i * step) * lattice.pitchX + site.dx)
      const cy = baseY + axes.sy * site.dy
      if (!detailed) {
        // From afar: a rectangle of the mean colour, the corners of a leaning bead left off.
        const quarter = Math.abs(Math.abs(site.turnDegrees) - 90) < 45
        const own = size ?? plain
        const fw = Math.max(1, Math.round((quarter ? own.y : own.x) * axes.scale + spreadX))
        const fh = Math.max(1, Math.round((quarter ? own.x : own.y) * axes.scale + spreadY))
        const left = Math.round(cx - fw / 2 + (Math.sign(axes.sx) * spreadX) / 2)
        const top = Math.round(cy - fh / 2 + (Math.sign(axes.sy) * spreadY) / 2)
        const colour = sprites.means[number]!
        const end = Math.min(x1, left + fw)
        for (let py = Math.max(y0, top), last = Math.min(y1, top + fh); py < last; py++) {
          for (let to = py * width + Math.max(x0, left), stop = py * width + end; to < stop; to++) pixels[to] = colour
        }
        drawn++
        continue
      }
      const x = Math.round(cx - w / 2)
      const y = Math.round(cy - h / 2)
      if (x >= x1 || y >= y1 || x + w <= x0 || y + h <= y0) continue
      const own = size ?? plain
      const sprite = turnedSprite(sprites, number, w, h, own.x * axes.scale, own.y * axes.scale, box.turn, hole, way)
      lay(
        pixels,
        width,
        sprite,
        w,
        x,
        y,
        x > x0 ? x : x0,
        x + w < x1 ? x + w : x1,
        y > y0 ? y : y0,
        y + h < y1 ? y + h : y1,
      )
      drawn++
    }
  }
  return drawn
}

/** The beads that show, and where: what both ways of painting go through. */
interface Field {
  readonly i0: number
  readonly j0: number
  readonly ni: number
  readonly nj: number
  readonly step: number
  readonly numbers: Uint16Array
  readonly edgesX: Int32Array
  readonly edgesY: Int32Array
  readonly period: Lattice['period']
  readonly clip: Clip
}

function paintSprites(
  { width, pixels }: Surface,
  { i0, j0, ni, nj, step, numbers, edgesX, edgesY, period, clip }: Field,
  sprites: Sprites,
  hole: 'across' | 'down',
  way: 1 | -1,
): number {
  const { x0, y0, x1, y1 } = clip
  let drawn = 0
  for (let j = 0; j < nj; j++) {
    const rowX = ((j0 + j * step) % period.rows) * ni
    for (let i = 0; i < ni; i++) {
      const ex = (rowX + i) * 2
      const ey = (((i0 + i * step) % period.columns) * nj + j) * 2
      const x = edgesX[ex]!
      const y = edgesY[ey]!
      const right = edgesX[ex + 1]!
      const bottom = edgesY[ey + 1]!
      const number = numbers[j * ni + i]!
      if (number === VOID || right <= x0 || x >= x1 || bottom <= y0 || y >= y1 || right <= x || bottom <= y) continue
      stamp(
        pixels,
        width,
        solidSprite(sprites, number, right - x, bottom - y, hole, way),
        right - x,
        x,
        y,
        x > x0 ? x : x0,
        right < x1 ? right : x1,
        y > y0 ? y : y0,
        bottom < y1 ? bottom : y1,
      )
      drawn++
    }
  }
  return drawn
}

/** Lines `from` … `to` of beads as rectangles of their mean colours. */
function paintFlat(
  { width, pixels }: Surface,
  { i0, j0, ni, nj, step, numbers, edgesX, edgesY, period, clip }: Field,
  means: Int32Array,
  from: number,
  to: number,
): number {
  const { x0, y0, x1, y1 } = clip
  let drawn = 0
  for (let j = from; j < to; j++) {
    const rowX = ((j0 + j * step) % period.rows) * ni
    for (let i = 0; i < ni; i++) {
      const number = numbers[j * ni + i]!
      const ex = (rowX + i) * 2
      const ey = (((i0 + i * step) % period.columns) * nj + j) * 2
      const x = edgesX[ex]!
      const y = edgesY[ey]!
      const right = edgesX[ex + 1]!
      const bottom = edgesY[ey + 1]!
      if (number === 0 || number === VOID || right <= x0 || x >= x1 || bottom <= y0 || y >= y1) continue
      const colour = means[number]!
      const left = x > x0 ? x : x0
      const end = right < x1 ? right : x1
      const last = bottom < y1 ? bottom : y1
      for (let py = y > y0 ? y : y0; py < last; py++) {
        for (let at = py * width + left, stop = py * width + end; at < stop; at++) pixels[at] = colour
      }
      drawn++
    }
  }
  return drawn
}

/**
 * The same, for lines that lie level: one line of pixels is filled and then copied down. Lines with empty places are
 * painted bead by bead.
 */
function paintLevel(surface: Surface, field: Field, means: Int32Array): number {
  const { width, pixels } = surface
  const { j0, ni, nj, step, numbers, edgesX, edgesY, period, clip } = field
  let drawn = 0
  for (let j = 0; j < nj; j++) {
    const line = numbers.subarray(j * ni, (j + 1) * ni)
    if (line.includes(0)) {
      drawn += paintFlat(surface, field, means, j, j + 1)
      continue
    }
    const top = Math.max(clip.y0, edgesY[2 * j]!)
    const bottom = Math.min(clip.y1, edgesY[2 * j + 1]!)
    if (bottom <= top) continue
    const rowX = ((j0 + j * step) % period.rows) * ni * 2
    const base = top * width
    for (let i = 0; i < ni; i++) {
      const x = edgesX[rowX + 2 * i]!
      const right = edgesX[rowX + 2 * i + 1]!
      const colour = means[line[i]!]!
      for (let at = x > clip.x0 ? x : clip.x0, stop = right < clip.x1 ? right : clip.x1; at < stop; at++)
        pixels[base + at] = colour
    }
    const left = Math.max(clip.x0, edgesX[rowX]!)
    const end = Math.min(clip.x1, edgesX[rowX + 2 * ni - 1]!)
    for (let y = top + 1; y < bottom && left < end; y++) pixels.copyWithin(y * width + left, base + left, base + end)
    drawn += ni
  }
  return drawn
}
