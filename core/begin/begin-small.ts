import { GLYPH_IDS } from '../bead/glyph'
import { trayLetter, type TrayBead } from '../bead/bead'
import { usualClosure } from '../wear/closure'
import { fitKindOf } from '../wear/kind'
import { fitOf } from '../fit/reckon'
import { wholeExtent } from '../fit/whole'
import { lettersOf, type SmallMakeable } from '../supply/leftovers'
import { hung } from '../piece/held'
import type { Piece } from '../piece/piece'
import { sized } from '../piece/sizes'
import { firstPart, hungBelow } from './part'
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
  const rows = (texts: readonly string[]) => texts.map((row) => [...row].map((ch) => numberOf.get(ch) ?? 0))
  const parts = design.parts.map((one, k, all) => ({
    ...firstPart({ ...one, settings: {}, rows: rows(one.rows) }, `part-${k + 1}`, spec, (number) => number),
    on: k === 0 ? null : hungBelow(`part-${k}`),
    ...(all.length === 1 ? { id: 'band' } : {}),
  }))
  const kind = fitKindOf(design.kind)
  // What hangs lowest is fitted: its measure is that of the whole.
  const part = parts.at(-1)!
  const base = hung(sized({ tray, gauges: [], meant: [], supply: supplySchema.parse({}), parts }))
  const bare = fitSchema.parse({
    kind: design.kind,
    part: part.id,
    bodyMm: kind.usualMm,
    easeMm: kind.eases[1]?.mm ?? 0,
    closure: usualClosure(kind.closures[0]!),
    widthMm: 10,
  })
  const finished = fitOf({ ...base, fit: bare }).finishedMm.nominal
  // What it comes to is what is wanted, within what such a thing can measure.
  const bodyMm = Math.round(Math.min(kind.most, Math.max(kind.least, finished - bare.easeMm)) * 10) / 10
  const fit = {
    ...bare,
    bodyMm,
    widthMm: Math.max(1, Math.round(wholeExtent(base, base.parts.at(-1)!).widthMm.nominal)),
  }
  return { name: design.name, notes: '', ...base, fit, cost: costSchema.parse({ currency }) }
}
