import { extentOf } from '../fit/extent'
import { wholeExtent } from '../fit/whole'
import { linksNeeded } from '../supply/links'
import { widthChoices } from '../fit/choices'
import { choicesFor } from '../fit/hang-choices'
import { reasonLine, reasonsOf } from '../fit/reasoning'
import { fitOf } from '../fit/reckon'
import { requireSpec } from '../bead/spec'
import { runPairs } from '../grid/runs'
import { joinOf } from '../piece/join'
import { laidCounted, laidRows } from '../piece/laid'
import { columnsOf, fittedPart, partRow, SECTIONS, techniqueOf, workOf, type Part, type Piece } from '../piece/piece'
import { partFindings } from '../proof/finding'
import { proofOf } from '../proof/proof'
import { beadsToBuy } from '../supply/beads'
import { pairWords, secondDiffers } from '../piece/pair'
import { strandsOf } from '../piece/strands'
import { costOf, weightOf } from '../supply/cost'
import { cutList, holeChecks, pathOf, threadCuts } from '../supply/thread'
import { needsFor, toolsFor } from '../supply/tools'
import { strandWords } from '../tally/strand'
import { piecedRowWords, wordsLine } from '../tally/words'
import {
  beadCounts,
  sizeCounts,
  tallyJoin,
  tallyPart,
  tallyPiece,
  tallySection,
  totalOf,
  type Counts,
} from '../tally/tally'

const byLetter = (piece: Piece, counts: Counts): Record<string, number> =>
  Object.fromEntries(piece.tray.map((b) => [b.letter, counts.get(b.number) ?? 0]))

function reportPart(piece: Piece, part: Part) {
  const counts = tallyPart(part)
  const sums = techniqueOf(part).sums?.(workOf(part))
  return {
    id: part.id,
    name: part.name,
    technique: part.technique,
    spec: requireSpec(part.spec),
    columns: columnsOf(part),
    beadRows: laidRows(part),
    rows: laidCounted(part),
    repeats: part.times,
    tally: {
      beads: totalOf(counts),
      byBead: byLetter(piece, counts),
      bySection: Object.fromEntries(SECTIONS.map((s) => [s, byLetter(piece, tallySection(part, s))])),
      byRow: [...piecedRowWords(piece, part)].map((w) => ({
        from: w.from,
        to: w.to,
        direction: w.direction,
        beads: w.beads,
        words: wordsLine(w, piece.tray),
      })),
    },
    on: part.on,
    extent: extentOf(piece, part),
    join: joinOf(piece, part),
    path: pathOf(part, piece),
    ...(sums ? { told: sums } : {}),
    findings: partFindings(part, piece),
    thread: threadCuts(piece, part),
    holes: holeChecks(piece, part),
    ...(techniqueOf(part).strands ? { strands: reportStrands(piece, part) } : {}),
  }
}

/** Strands from left to right, as lists from the top down; a mirrored second of a pair reads them from the end. */
const reportStrands = (piece: Piece, part: Part) =>
  strandsOf(piece, part).map(({ r, at, to, sameAs, ...strand }) => ({
    ...{ strand: r + 1, place: at + 1, leadsTo: to === null ? null : to + 1 },
    ...strand,
    sameAs: sameAs === null ? null : sameAs + 1,
    list: strandWords({ runs: runPairs(partRow(part, r)) }, piece.tray),
  }))

/** All that the core computes for a piece, as plain data (lengths in mm, weights in g). */
export function reportPiece(piece: Piece) {
  const counts = tallyPiece(piece)
  return {
    format: 'weben-report',
    version: 3,
    name: piece.name,
    tally: {
      beads: totalOf(counts),
      toJoin: totalOf(tallyJoin(piece)),
      byBead: beadCounts(piece.tray, counts).map(({ bead, count, grams }) => ({
        number: bead.number,
        letter: bead.letter,
        name: bead.name,
        spec: bead.spec,
        count,
        grams,
      })),
      bySize: sizeCounts(piece.tray, counts),
    },
    parts: piece.parts.map((part) => reportPart(piece, part)),
    whole: wholeExtent(piece, fittedPart(piece)),
    grams: weightOf(piece),
    pair: pairWords(piece),
    secondDiffers: secondDiffers(piece),
    proof: proofOf(piece),
    fit: {
      kind: piece.fit.kind,
      part: fittedPart(piece).id,
      ...fitOf(piece),
      reasons: reasonsOf(piece).map(reasonLine),
      choices: choicesFor(piece),
      widths: widthChoices(piece),
    },
    supplies: {
      beads: beadsToBuy(piece),
      cut: cutList(piece),
      links: linksNeeded(piece),
      needs: needsFor(piece),
      tools: toolsFor(piece),
      cost: costOf(piece),
    },
  }
}
