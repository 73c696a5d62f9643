import { degrees, rgb } from 'pdf-lib'
import { beadOutline } from '../picture/outline'
import { trayByNumber, type Part, type Piece } from '../piece/piece'
import { numbersIn, shownRows, type ShownStep } from '../tally/strips'
import { rowTitle, runText, type ToldRuns } from '../tally/words'
import type { StepPicture } from '../technique/step-picture'
import { INK, paint, PT, SOFT, sheet, written, type Ground, type Sheet } from './pdf-sheet'

/** Pages of the booklet that show the steps of work that is told so: one card a step, three beside each other. */

const MARGIN = 14
const TOP = 24
const ACROSS = 3
const GAP = 4
const FRAME_MM = 27
const LINE_MM = 3.7
const TITLE_MM = 9
const WORDS_PT = 8.2
/** Pictures are drawn so many times larger than life at most. */
const LARGEST = 4
const EDGE_MM = 1.2

const MADDER = rgb(0.62, 0.2, 0.25)

type Placed =
  | { readonly kind: 'title'; readonly page: number; readonly y: number; readonly says: string }
  | {
      readonly kind: 'step'
      readonly page: number
      readonly x: number
      readonly y: number
      readonly nth: number
      readonly step: ShownStep
      readonly lines: readonly string[]
    }

/** Cards of a part with their places, and how many pages they take; none where nothing is told step by step. */
export interface StepPages {
  readonly part: Part
  readonly placed: readonly Placed[]
  readonly pages: number
}

const widthOf = ({ width }: Ground): number => (width - 2 * MARGIN - (ACROSS - 1) * GAP) / ACROSS

/** Words of a step as lines that fit a card. */
function linesFor({ plain }: Ground, words: ToldRuns, piece: Piece, roomMm: number): string[] {
  const letters = trayByNumber(piece.tray)
  const does = words.runs.length > 0 ? words.runs.map((run) => runText(run, letters)).join(' ') : words.says
  const said = `${words.who ? `${words.who}: ` : ''}${does}${words.note ? ` — ${words.note}` : ''}`
  const out: string[] = []
  let line = ''
  for (const word of said.split(' ')) {
    const next = line === '' ? word : `${line} ${word}`
    if (line !== '' && plain.widthOfTextAtSize(written(next), WORDS_PT) > roomMm * PT) {
      out.push(line)
      line = word
    } else line = next
  }
  return [...out, line]
}

/** Lays the cards of a part out. */
export function stepPages(ground: Ground, piece: Piece, part: Part): StepPages {
  const cardMm = widthOf(ground)
  const foot = ground.height - MARGIN
  const placed: Placed[] = []
  let page = 0
  let y = TOP
  for (const { words, others, steps } of shownRows(part)) {
    const lines = steps.map(({ words: told }) => linesFor(ground, told, piece, cardMm - 8))
    const rows = Array.from({ length: Math.ceil(steps.length / ACROSS) }, (_, k) => k * ACROSS)
    const heightOf = (from: number): number =>
      FRAME_MM + 3 + LINE_MM * Math.max(...lines.slice(from, from + ACROSS).map((own) => own.length))
    // A title stays with its first cards.
    if (y + TITLE_MM + heightOf(0) > foot) {
      page++
      y = TOP
    }
    const beads = `${words.beads} ${words.beads === 1 ? 'bead' : 'beads'}`
    placed.push({
      kind: 'title',
      page,
      y,
      says: `${rowTitle(words)}${others ? ' and those worked alike' : ''}: ${beads}`,
    })
    y += TITLE_MM
    for (const from of rows) {
      const high = heightOf(from)
      if (y + high > foot) {
        page++
        y = TOP
      }
      steps.slice(from, from + ACROSS).forEach((step, k) => {
        const at = { page, x: MARGIN + k * (cardMm + GAP), y }
        placed.push({ kind: 'step', ...at, nth: from + k + 1, step, lines: lines[from + k]! })
      })
      y += high + GAP
    }
  }
  return { part, placed, pages: placed.length === 0 ? 0 : page + 1 }
}

/** Draws the pages; `first` is the number of the first. */
export function drawStepPages(
  ground: Ground,
  piece: Piece,
  { part, placed, pages }: StepPages,
  first: number,
  ink: 'colour' | 'letters',
): void {
  for (let k = 0; k < pages; k++) {
    const out = sheet(ground)
    out.text(`${piece.name}: ${part.name}, step by step`, MARGIN, MARGIN, 10, true)
    out.text(`page ${first + k} of ${ground.total.pages}`, ground.width - MARGIN - 30, MARGIN, 9, false, true)
    for (const card of placed) {
      if (card.page !== k) continue
      if (card.kind === 'title') {
        out.text(card.says, MARGIN, card.y + 4, 11, true)
        continue
      }
      const { x, y, nth, step, lines } = card
      if (step.picture) drawPicture(ground, out, { piece, part, picture: step.picture, x, y, ink })
      const top = y + (step.picture ? FRAME_MM : 0) + 4
      out.text(String(nth), x, top, 9, true)
      lines.forEach((line, n) => {
        out.text(line, x + 6, top + n * LINE_MM, WORDS_PT)
      })
    }
  }
}

interface Drawing {
  readonly piece: Piece
  readonly part: Part
  readonly picture: StepPicture
  readonly x: number
  readonly y: number
  readonly ink: 'colour' | 'letters'
}

const ORDER = { made: 0, passed: 1, new: 2 } as const

/** One step: what is there pale, what is new in full, the way of the thread over it. */
function drawPicture(ground: Ground, { page }: Sheet, { piece, part, picture, x, y, ink }: Drawing): void {
  const tray = trayByNumber(piece.tray)
  const [wide, high] = [picture.right - picture.left + 2 * EDGE_MM, picture.bottom - picture.top + 2 * EDGE_MM]
  const room = widthOf(ground)
  const scale = Math.min(LARGEST, room / wide, FRAME_MM / high)
  const middle = { x: x + room / 2, y: y + FRAME_MM / 2 }
  const [mx, my] = [(picture.left + picture.right) / 2, (picture.top + picture.bottom) / 2]
  const at = (p: { readonly x: number; readonly y: number }) => ({
    x: (middle.x + (p.x - mx) * scale) * PT,
    y: (ground.height - middle.y - (p.y - my) * scale) * PT,
  })
  page.drawRectangle({
    ...{ x: x * PT, y: (ground.height - y - FRAME_MM) * PT, width: room * PT, height: FRAME_MM * PT },
    ...{ color: rgb(0.965, 0.95, 0.925), borderWidth: 0 },
  })
  for (const { points, thickMm } of picture.lines) {
    const line = points.map(at)
    line.slice(1).forEach((end, k) => {
      page.drawLine({
        start: line[k]!,
        end,
        thickness: Math.max(0.3, thickMm * scale * PT),
        color: SOFT,
        opacity: 0.5,
      })
    })
  }
  for (const ring of picture.rings)
    page.drawCircle({ ...at(ring), size: ring.r * scale * PT, borderColor: SOFT, borderWidth: 1 })
  const numbers = numbersIn(part, picture)
  const beads = picture.beads
    .map((bead, k) => ({ ...bead, on: tray.get(numbers[k]!) }))
    .sort((a, b) => ORDER[a.look] - ORDER[b.look])
  for (const { spec, turnDegrees, flip, look, on, ...p } of beads) {
    const pale = look === 'made' ? 0.4 : look === 'passed' ? 0.75 : 1
    // Every outline is the same seen from its other end, so a bead that is turned over is turned round.
    page.drawSvgPath(beadOutline(spec), {
      ...at(p),
      scale: scale * PT,
      rotate: degrees(-turnDegrees - (flip < 0 ? 180 : 0)),
      color: ink === 'colour' ? paint(on?.colour ?? '#c9c0b2') : rgb(1, 1, 1),
      borderColor: look === 'passed' ? MADDER : INK,
      borderWidth: 0.16,
      opacity: pale,
      borderOpacity: pale,
    })
    if (ink === 'letters' && on && look !== 'made') {
      const size = Math.min(7, Math.min(spec.l, spec.d) * scale * PT * 0.7)
      const { x: px, y: py } = at(p)
      page.drawText(on.letter, {
        ...{ x: px - ground.plain.widthOfTextAtSize(on.letter, size) / 2, y: py - size * 0.36, size },
        ...{ font: ground.plain, color: INK },
      })
    }
  }
  const points = picture.way.map(at)
  points.slice(1).forEach((end, k) => {
    page.drawLine({ start: points[k]!, end, thickness: 0.9, color: MADDER })
  })
  if (picture.enters) page.drawCircle({ ...at(picture.enters), size: 3, borderColor: MADDER, borderWidth: 0.8 })
  if (picture.needle)
    page.drawSvgPath('M0 -1.6L5 0L0 1.6Z', {
      ...{ ...at(picture.needle), rotate: degrees(-picture.needle.turnDegrees), color: MADDER },
    })
}
