import { makePainter, type Scene } from '../../app/mat/painter'
import { bead } from '../fixture/bead'
import { emptyCells, withCells } from '#core/grid/cells'
import { linesOf, raggedFrom } from '#core/grid/lines'
import { layingSteps } from '#core/piece/edit'
import { costSchema, fitSchema, supplySchema } from '#core/piece/schema'
import type { Part, Piece } from '#core/piece/piece'
import { applySteps } from '#core/piece/step'
import { usualClosure } from '#core/wear/closure'
import { fitOf } from '#core/fit/reckon'
import { beadsToBuy } from '#core/supply/beads'
import { sized } from '#core/piece/sizes'
import { requireTechnique } from '#core/technique/registry'
import { tallyPiece } from '#core/tally/tally'
import { drawnSize } from '#core/piece/drawn-size'
import type { View } from '#core/picture/view'

/** Runs in the page: times the mat against a blit of the same canvas, in the same run. All times are medians, ms. */
export interface Measured {
  readonly beads: number
  readonly blit: number
  readonly full: number
  readonly zoom: number
  readonly stroke: number
  readonly pan: number
  readonly answers: number
}

function noisy(columns: number, rows: number): Part {
  const empty = emptyCells(columns, 0)
  const cells = withCells(emptyCells(columns, rows, 1), (set) => {
    let state = 12345
    for (let i = 0; i < columns * rows; i++) {
      state = (state * 1103515245 + 12345) & 0x7fffffff
      set(i, 1 + ((state >> 16) % 6))
    }
  })
  return {
    id: 'band',
    name: 'Band',
    technique: 'peyote',
    settings: { start: 'left' },
    spec: 'cylinder-11',
    times: 1,
    on: null,
    start: empty,
    repeat: cells,
    end: empty,
  }
}

/** Strands of a fan, as many and as long as columns and rows say: beads that lie freely. */
function fanned(columns: number, rows: number): Part {
  const grid = noisy(columns, rows)
  return {
    ...grid,
    technique: 'fan',
    settings: { gapMm: 0.6 },
    plan: { lean: 12, turning: true },
    start: raggedFrom([]),
    // Every strand a little longer or shorter than the one before it.
    repeat: raggedFrom(linesOf(grid.repeat).map((line, r) => line.subarray(0, columns - (r % 5)))),
    end: raggedFrom([]),
  }
}

/** Flowers on a stem, so many, in six beads by the part that they play. */
function chained(motifs: number): Part {
  const technique = requireTechnique('stemmed-flowers')
  const settings = technique.settings.parse({})
  const plan = technique.plan!.parse({})
  const { start, motif, end } = technique.picks!({ settings, plan }, motifs)
  const slots: string[] = []
  const numberOf = ({ slot }: { readonly slot: string }): number => {
    if (!slots.includes(slot)) slots.push(slot)
    return 1 + (slots.indexOf(slot) % 6)
  }
  const line = (beads: typeof start): Uint16Array => Uint16Array.from(beads, numberOf)
  return {
    ...{
      id: 'chain',
      name: 'Chain',
      technique: technique.id,
      settings,
      plan,
      spec: 'cylinder-11',
      times: 1,
      on: null,
    },
    start: raggedFrom([line(start)]),
    repeat: raggedFrom(Array.from({ length: motifs }, (_, m) => line(motif(m)))),
    end: raggedFrom([line(end)]),
  }
}

const median = (times: number[]): number => times.sort((a, b) => a - b)[Math.floor(times.length / 2)]!

/** Median of `runs` samples; each sample repeats the work, because the clock of a page is coarse. */
function timed(runs: number, work: (k: number) => void, settle: () => void, repeat = 6): number {
  const times: number[] = []
  for (let k = 0; k < runs; k++) {
    const began = performance.now()
    for (let i = 0; i < repeat; i++) {
      work(k * repeat + i)
      settle()
    }
    times.push((performance.now() - began) / repeat)
  }
  return median(times)
}

export function measure(
  columns: number,
  rows: number,
  width: number,
  height: number,
  lies: 'lattice' | 'free' | 'chain' = 'lattice',
): Measured {
  const canvas = document.createElement('canvas')
  canvas.width = width
  canvas.height = height
  const ctx = canvas.getContext('2d', { alpha: false, willReadFrequently: false })!
  const other = document.createElement('canvas')
  other.width = width
  other.height = height
  other.getContext('2d')!.fillRect(5, 5, 300, 300)
  // Reading one pixel makes the canvas finish what it was told.
  const settle = () => {
    ctx.getImageData(0, 0, 1, 1)
  }

  const tray = [1, 2, 3, 4, 5, 6].map((n) => bead(n))
  const drawn = { lattice: noisy, free: fanned, chain: () => chained(rows) }[lies](columns, rows)
  const piece: Piece = sized({
    name: 'Bench',
    notes: '',
    tray,
    parts: [drawn],
    gauges: [],
    meant: [],
    supply: supplySchema.parse({}),
    cost: costSchema.parse({}),
    fit: fitSchema.parse({ kind: 'bracelet', bodyMm: 170, easeMm: 13, closure: usualClosure('toggle'), widthMm: 30 }),
  })
  const part = piece.parts[0]!
  // The whole work fills the screen: the most beads that can show at this size.
  const size = drawnSize(part)
  const scale =
    lies === 'free'
      ? Math.min(width / size.length, height / size.width)
      : lies === 'chain'
        ? // Forty motifs across the screen: a chain is as long as it is.
          (width * rows) / (40 * size.length)
        : Math.min(width / (rows * 1.6), height / (columns * 1.3))
  const view: View = { lie: 'level', scale, x: 0, y: 0 }
  const options = { ground: { r: 207, g: 198, b: 184 }, glyphs: false, nap: 4 }
  const scene = (p: Part, v = view): Scene => ({ part: p, whole: null, tray, view: v, options })
  const painter = makePainter()
  painter.resize(width, height)
  painter.show(ctx, scene(part))

  const blit = timed(31, () => ctx.drawImage(other, 0, 0), settle)
  // A new zoom: new sprites and every pixel anew. Moved further than half the screen: every pixel anew at the same
  // zoom.
  const zoom = timed(
    21,
    (k) => {
      painter.show(ctx, scene(part, { ...view, scale: scale * (1 + (k % 2) * 1e-9) }))
    },
    settle,
  )
  const full = timed(
    21,
    (k) => {
      painter.show(ctx, scene(part, { ...view, x: (k % 2) * 0.5 }))
    },
    settle,
  )
  let now = piece
  const stroke = timed(
    31,
    (k) => {
      const laying = new Map(
        Array.from({ length: 20 }, (_, i) => [((k * 7) % rows) * columns + (i % columns), 1 + (k % 6)]),
      )
      const next = applySteps(now, layingSteps(now.parts[0]!, laying))
      if (next.ok) now = next.value
      painter.show(ctx, scene(now.parts[0]!))
    },
    settle,
  )
  const pan = timed(
    21,
    (k) => {
      painter.show(ctx, scene(now.parts[0]!, { ...view, x: (k % 2) * 13, y: (k % 3) * 7 }))
    },
    settle,
  )
  const answers = timed(
    21,
    (k) => {
      const next = applySteps(now, layingSteps(now.parts[0]!, new Map([[k * 31, 1 + (k % 6)]])))
      if (next.ok) now = next.value
      tallyPiece(now)
      fitOf(now)
      beadsToBuy(now)
    },
    () => {},
  )
  return { beads: columns * rows, blit, full, zoom, stroke, pan, answers }
}

declare global {
  interface Window {
    measure: typeof measure
  }
}
window.measure = measure
