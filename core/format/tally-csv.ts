import { isCounted } from '../piece/nature'
import { requireSpec } from '../bead/spec'

import { beadsToBuy } from '../supply/beads'
import { asides, piecedRowWords, runText } from '../tally/words'
import { beadCounts, tallyPart, tallySection } from '../tally/tally'
import { SECTIONS, trayByNumber, type Piece } from '../piece/piece'

/** CSV as RFC 4180: fields in quotes where needed, quotes doubled, CRLF. */
export function csv(rows: readonly (readonly (string | number)[])[]): string {
  const field = (value: string | number) => {
    const text = String(value)
    // A leading = + - @ would be run as a formula by spreadsheets; an apostrophe keeps it text.
    const safe = typeof value === 'string' && /^[=+\-@\t\r]/.test(text) ? `'${text}` : text
    return /[",\r\n]/.test(safe) ? `"${safe.replaceAll('"', '""')}"` : safe
  }
  return rows.map((row) => row.map(field).join(',') + '\r\n').join('')
}

const grams = (value: number): number => Math.round(value * 100) / 100

/** Counts for each bead, plain cords left out: by section, by part and in all, with grams and what to buy. */
export function tallyCsv(piece: Piece): string {
  const buy = new Map(beadsToBuy(piece).map((b) => [b.bead.number, b]))
  const rows: (string | number)[][] = [
    [
      'part',
      'letter',
      'bead',
      'size',
      'colour',
      'finish',
      'start',
      'one repeat',
      'repeats',
      'end',
      'count',
      'grams',
      'with spare',
      'grams to buy',
    ],
  ]
  for (const part of piece.parts.filter((p) => isCounted(p))) {
    const sections = SECTIONS.map((s) => tallySection(part, s))
    for (const { bead, count, grams: g } of beadCounts(piece.tray, tallyPart(part))) {
      const of = (i: number) => sections[i]!.get(bead.number) ?? 0
      const b = buy.get(bead.number)
      rows.push([
        part.name,
        bead.letter,
        bead.name,
        requireSpec(bead.spec).name,
        bead.colour,
        bead.finish,
        of(0),
        of(1),
        part.times,
        of(2),
        count,
        grams(g),
        b?.need ?? 0,
        grams(b?.grams ?? 0),
      ])
    }
  }
  return csv(rows)
}

/** The words of every working row: number, direction, beads in it, runs. */
export function rowsCsv(piece: Piece): string {
  const letters = trayByNumber(piece.tray)
  const rows: (string | number)[][] = [['part', 'first row', 'last row', 'direction', 'beads', 'words', 'also']]
  for (const part of piece.parts.filter((p) => isCounted(p))) {
    for (const words of piecedRowWords(piece, part)) {
      rows.push([
        part.name,
        words.from,
        words.to,
        words.direction === '→' ? 'left to right' : 'right to left',
        words.beads,
        words.runs.map((run) => runText(run, letters)).join(' '),
        asides(words).join('; '),
      ])
    }
  }
  return csv(rows)
}
