import { discOf, isCounted } from '../piece/nature'
import { PDFDocument, StandardFonts } from 'pdf-lib'
import { requireSpec } from '../bead/spec'
import {
  beadOf,
  rowsOf,
  SECTIONS,
  techniqueOf,
  trayByNumber,
  type Part,
  type Piece,
  type SectionName,
} from '../piece/piece'
import { bad, good, problem, type Result } from '../problem'
import { strandCords } from '../tally/cords'
import { strandLists, strandWords } from '../tally/strand'
import { paint, PAPER, PT, sheet, type Ground } from './pdf-sheet'
import { csv } from './tally-csv'

/** What a section of a braid is called, and how often it is strung. */
const SECTION_NAMES: Record<SectionName, string> = { start: 'beginning', repeat: 'repeat', end: 'ending' }

const sectionsOf = (part: Part): SectionName[] =>
  SECTIONS.filter((s) => part[s].rows > 0 && (s !== 'repeat' || part.times > 0))

/** Strand lists as CSV (RFC 4180): a line for each run of each strand of each section, in stringing order. */
export function strandsCsv(piece: Piece, part: Part): string {
  const letters = trayByNumber(piece.tray)
  const head = ['section', 'times', 'bobbin', 'slot', 'side', 'run', 'count', 'letter', 'bead', 'size']
  if (!isCounted(part)) {
    const lists = strandLists(part)
    return csv([
      head,
      ...strandCords(part, piece.tray).map(({ bobbin, number, doubled }): (string | number)[] => {
        const cord = letters.get(number)
        return [
          'whole',
          1,
          bobbin,
          lists[bobbin - 1]!.slot,
          lists[bobbin - 1]!.place,
          1,
          doubled ? 2 : 1,
          cord?.letter ?? '',
          cord?.name ?? 'none',
          cord ? requireSpec(cord.spec).name : '',
        ]
      }),
    ])
  }
  return csv([
    head,
    ...sectionsOf(part).flatMap((section) =>
      strandLists(part, section).flatMap((list) =>
        list.runs.map((run, k): (string | number)[] => {
          const bead = letters.get(run.number)
          return [
            SECTION_NAMES[section],
            section === 'repeat' ? part.times : 1,
            list.bobbin,
            list.slot,
            list.place,
            k + 1,
            run.count,
            bead?.letter ?? '',
            bead?.name ?? 'none',
            bead ? requireSpec(bead.spec).name : '',
          ]
        }),
      ),
    ),
  ])
}

interface CardOptions {
  readonly paper: 'A4' | 'Letter'
}

const MARGIN = 12
const CARDS_A_PAGE = 4

/** Words broken into lines of at most so many signs. */
function wrapped(words: string, most: number): string[] {
  const lines: string[] = []
  let line = ''
  for (const word of words.split(' ')) {
    if (line !== '' && line.length + 1 + word.length > most) {
      lines.push(line)
      line = word
    } else line = line === '' ? word : `${line} ${word}`
  }
  return line === '' ? lines : [...lines, line]
}

/**
 * Bobbin cards and the disc diary as PDF: first the disc with every strand at its slot, then a card for each bobbin
 * with what to string on it, section by section, the first used on top. Four cards a page; a list that is too long
 * goes on on the next card.
 */
export async function strandCardsPdf(piece: Piece, part: Part, { paper }: CardOptions): Promise<Result<Uint8Array>> {
  const disc = discOf(part)
  if (!disc)
    return bad(problem('cards-none', part.id, 'Only braids have strands to string. Choose a part that is braided.'))
  const doc = await PDFDocument.create()
  doc.setTitle(`${piece.name}: bobbin cards`)
  const [width, height] = PAPER[paper]
  const ground: Ground = {
    doc,
    plain: await doc.embedFont(StandardFonts.Helvetica),
    bold: await doc.embedFont(StandardFonts.HelveticaBold),
    width,
    height,
    total: { pages: 0 },
  }
  diary(ground, piece, part)
  // Plain cords are not strung: the diary says which lies where.
  const cards = (!isCounted(part) ? [] : strandLists(part)).flatMap(({ bobbin, slot, place, beads }) => {
    const lines = sectionsOf(part).flatMap((section) => {
      const list = strandLists(part, section)[bobbin - 1]!
      return [
        `= ${SECTION_NAMES[section]}${section === 'repeat' ? `, ${part.times} times` : ''}`,
        ...wrapped(strandWords(list, piece.tray), 62),
      ]
    })
    const perCard = 9
    return Array.from({ length: Math.max(1, Math.ceil(lines.length / perCard)) }, (_, k) => ({
      bobbin,
      slot,
      place,
      beads,
      k,
      lines: lines.slice(k * perCard, (k + 1) * perCard),
    }))
  })
  const high = (height - 2 * MARGIN) / CARDS_A_PAGE
  for (let at = 0; at < cards.length; at += CARDS_A_PAGE) {
    const { text, line } = sheet(ground)
    for (const [j, card] of cards.slice(at, at + CARDS_A_PAGE).entries()) {
      const top = MARGIN + j * high
      line(MARGIN, top, width - MARGIN, top, 0.3)
      text(String(card.bobbin), MARGIN + 2, top + 17, 40, true)
      text(`slot ${card.slot}, ${card.place}${card.k > 0 ? ', goes on' : ''}`, MARGIN + 24, top + 8, 11, true)
      text(`${card.beads} beads in all · ${piece.name}`, MARGIN + 24, top + 13, 9, false, true)
      card.lines.forEach((words, i) => {
        text(
          words.replace(/^= /, ''),
          MARGIN + 24,
          top + 20 + i * 5,
          words.startsWith('= ') ? 9 : 12,
          !words.startsWith('= '),
          words.startsWith('= '),
        )
      })
    }
    line(
      MARGIN,
      MARGIN + Math.min(CARDS_A_PAGE, cards.length - at) * high,
      width - MARGIN,
      MARGIN + Math.min(CARDS_A_PAGE, cards.length - at) * high,
      0.3,
    )
  }
  return good(await doc.save())
}

/**
 * The disc as it is loaded: which strand sits in which slot, by number and by compass side, and the beads that each
 * carries first.
 */
function diary(ground: Ground, piece: Piece, part: Part): void {
  const { page, text, line } = sheet(ground)
  const disc = discOf(part)!
  const plan = disc.plan(part.settings)
  const letters = trayByNumber(piece.tray)
  text(piece.name, MARGIN, 22, 20, true)
  text(
    `${[techniqueOf(part).name, disc.way(part.settings), beadOf(part).name].filter(Boolean).join(', ')}; ` +
      `${rowsOf(part)} rounds`,
    MARGIN,
    29,
    10,
    false,
    true,
  )
  const [cx, cy, r] = [ground.width / 2, 112, 62]
  const at = (slot: number, radius: number) => {
    const a = ((slot - 0.5) / plan.slots) * 2 * Math.PI
    return { x: cx + radius * Math.sin(a), y: cy - radius * Math.cos(a) }
  }
  page.drawCircle({
    x: cx * PT,
    y: (ground.height - cy) * PT,
    size: r * PT,
    borderWidth: 1,
    borderColor: paint('#645a50'),
  })
  page.drawCircle({
    x: cx * PT,
    y: (ground.height - cy) * PT,
    size: 12 * PT,
    borderWidth: 0.6,
    borderColor: paint('#645a50'),
  })
  for (let slot = 1; slot <= plan.slots; slot++) {
    const [a, b, n] = [at(slot, r - 4), at(slot, r), at(slot, r - 9)]
    line(a.x, a.y, b.x, b.y, 0.3)
    text(String(slot), n.x - 1.6, n.y + 1.2, 7, false, true)
  }
  for (const [k, name] of ['N', 'E', 'S', 'W'].entries()) {
    const p = at((k * plan.slots) / 4 + 0.5, r - 20)
    text(name, p.x - 1.8, p.y + 1.8, 13, true)
  }
  const lists = strandLists(part)
  for (const { bobbin, slot, runs } of lists) {
    const [inner, outer, label] = [at(slot, 14), at(slot, r + 8), at(slot, r + 14)]
    line(inner.x, inner.y, outer.x, outer.y, 0.5)
    text(String(bobbin), label.x - 2, label.y + 2, 14, true)
    const bead = letters.get(runs[0]?.number ?? 0)
    const dot = at(slot, r + 4)
    if (bead)
      page.drawCircle({
        x: dot.x * PT,
        y: (ground.height - dot.y) * PT,
        size: 1.8 * PT,
        color: paint(bead.colour),
        borderWidth: 0.4,
        borderColor: paint('#2c2622'),
      })
  }
  const cords = strandCords(part, piece.tray)
  const carries = (bobbin: number, beads: number): string => {
    const cord = cords[bobbin - 1]
    const bead = cord && letters.get(cord.number)
    return cord
      ? `${bead ? `${bead.letter} ${bead.name}` : 'cord'} ${cord.diameterMm} mm${cord.doubled ? ', two' : ''}`
      : `${beads} beads`
  }
  text('Bobbin', MARGIN, 208, 9, true)
  for (const [k, { bobbin, slot, place, beads }] of lists.entries()) {
    const column = k % 2
    text(
      `${bobbin}: slot ${slot}, ${place}, ${carries(bobbin, beads)}`,
      MARGIN + column * 90,
      215 + Math.floor(k / 2) * 6,
      10,
    )
  }
}
