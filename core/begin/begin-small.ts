import { GLYPH_IDS } from '../bead/glyph'
import { trayLetter, type TrayBead } from '../bead/bead'
import { usualClosure } from '../wear/closure'
import { fitKindOf } from '../wear/kind'
import { fitOf } from '../fit/reckon'
import { extentOf } from '../fit/extent'
import { cellsFrom, emptyCells } from '../grid/cells'
import { lettersOf, type SmallMakeable } from '../supply/leftovers'
import { requireTechnique } from '../technique/registry'
import type { Part, Piece } from '../piece/piece'
import { costSchema, fitSchema, supplySchema } from '../piece/schema'

/** A piece from a small design and the tubes of the box that serve for it; its measure is what it comes to. */
export function beginSmall(
  { design, spec, tubes }: Pick<SmallMakeable, 'design' | 'spec' | 'tubes'>,
  currency = 'EUR',
): Piece {
  const letters = lettersOf(design)
  const tray = tubes.map(({ value }, k): TrayBead => ({
    number: k + 1,
    letter: trayLetter(k),
    glyph: GLYPH_IDS[k]!,
    name: value.name,
    spec,
    colour: value.colour,
    finish: value.finish,
  }))
  const numberOf = new Map(letters.map(({ letter }, k) => [letter, k + 1]))
  const { columns, rows } = design.size
  const part: Part = {
    id: 'band',
    name: design.kind === 'earrings' ? 'Drop' : 'Band',
    technique: design.technique,
    settings: requireTechnique(design.technique).settings.parse({}),
    spec,
    times: 1,
    on: null,
    start: emptyCells(columns, 0),
    repeat: cellsFrom(
      columns,
      rows,
      design.rows.flatMap((row) => [...row].map((ch) => numberOf.get(ch) ?? 0)),
    ),
    end: emptyCells(columns, 0),
  }
  const kind = fitKindOf(design.kind)
  const base = { tray, gauges: [], supply: supplySchema.parse({}), parts: [part] }
  const bare = fitSchema.parse({
    kind: design.kind,
    bodyMm: kind.usualMm,
    easeMm: kind.eases[1]?.mm ?? 0,
    closure: usualClosure(kind.closures[0]!),
    widthMm: 10,
  })
  const finished = fitOf({ ...base, fit: bare }).finishedMm.nominal
  // What it comes to is what is wanted, within what such a thing can measure.
  const bodyMm = Math.round(Math.min(kind.most, Math.max(kind.least, finished - bare.easeMm)) * 10) / 10
  const fit = { ...bare, bodyMm, widthMm: Math.max(1, Math.round(extentOf(base, part).widthMm.nominal)) }
  return { name: design.name, notes: '', ...base, fit, cost: costSchema.parse({ currency }) }
}
