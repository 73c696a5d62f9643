import { cellsFrom, emptyCells } from '../core/grid/cells'
import { raggedFrom } from '../core/grid/lines'
import { hung } from '../core/piece/held'
import type { Part, Piece } from '../core/piece/piece'
import { costSchema, fitSchema, supplySchema, type Joint } from '../core/piece/schema'
import { sized } from '../core/piece/sizes'
import { readRecipeText } from '../core/recipe/shorthand'
import { valueOf } from '../core/problem'
import { requireTechnique } from '../core/technique/registry'
import type { Plan, Settings } from '../core/technique/technique'
import { usualClosure } from '../core/wear/closure'
import { trayOf } from './plan'

/**
 * A sampler as an apprentice planned it, with a mistake of every kind that the proofreader knows in some part of it.
 */

const settingsOf = (technique: string, more: Settings = {}): Settings =>
  requireTechnique(technique).settings.parse(more) as Settings

/** A grid of letters: `.` is no bead, A the first of the tray. */
function grid(
  head: { readonly id: string; readonly name: string; readonly technique: string; readonly times: number },
  lines: readonly string[],
): Part {
  const columns = lines[0]!.length
  const flat = lines.flatMap((line) => [...line].map((ch) => (ch === '.' ? 0 : ch.charCodeAt(0) - 64)))
  return {
    ...head,
    ...{ settings: settingsOf(head.technique), spec: 'cylinder-10', on: null },
    ...{ start: emptyCells(columns, 0), end: emptyCells(columns, 0) },
    repeat: cellsFrom(columns, lines.length, flat),
  }
}

function lines(
  head: { readonly id: string; readonly name: string; readonly technique: string; readonly on?: Joint | null },
  rows: readonly (readonly number[])[],
  { plan = {}, settings = {} }: { readonly plan?: Plan; readonly settings?: Settings } = {},
): Part {
  const { technique } = head
  return {
    ...{ id: head.id, name: head.name, technique, spec: 'cylinder-10', times: rows.length > 0 ? 1 : 0 },
    ...{ on: head.on ?? null, settings: settingsOf(technique, settings) },
    plan: requireTechnique(technique).plan!.parse(plan),
    ...{ start: raggedFrom([]), repeat: raggedFrom(rows), end: raggedFrom([]) },
  }
}

const of = (count: number, number = 1): number[] => Array<number>(count).fill(number)
const ring = (hole: number): Joint => ({
  ...{ part: 'bar', at: 'end', by: 'start', holes: [hole] },
  link: { kind: 'ring', mm: 4 },
})

/** A drop that hangs left or right; one bead of the right one is another. */
const drop = (side: 'left' | 'right', k: number): Part => ({
  ...grid({ id: side, name: side === 'left' ? 'Left drop' : 'Right drop', technique: 'square', times: 1 }, [
    ...['CAAC', 'ACCA', k === 0 ? 'ACCA' : 'AFCA', 'CAAC'],
  ]),
  on: ring(2 + 2 * k),
})

/** A row of the band, so wide, alike from both sides: chevrons that go up and back. */
const chevron = (r: number): string =>
  Array.from({ length: 24 }, (_, c) => 'ABC'[Math.floor((Math.abs(c - 11.5) + 2 * Math.min(r, 8 - r)) / 3) % 3]!).join(
    '',
  )

/** Diamonds, twelve beads wide and ten rows high. */
const diamond = (c: number, r: number): string =>
  'ABCD'[Math.floor((Math.abs((c % 12) - 5.5) + Math.abs((r % 10) - 4.5)) / 2.8)]!
function diamonds(rows: number): string[] {
  return Array.from({ length: rows }, (_, r) => Array.from({ length: 24 }, (_b, c) => diamond(c, r)).join(''))
}
const turned = (line: string): string => line.slice(-1) + line.slice(0, -1)
const laid = (line: string, c: number, letter: string): string => line.slice(0, c) + letter + line.slice(c + 1)

/** Two beads off, one row slipped by a bead. */
function practice(): string[] {
  const out = diamonds(50)
  out[13] = laid(out[13]!, 6, 'D')
  out[27] = turned(out[27]!)
  return out
}
/** A row left out, and another piece with a row twice. */
const short = (): string[] => diamonds(50).toSpliced(23, 1)
const long = (): string[] => diamonds(50).toSpliced(32, 0, diamonds(50)[31]!)

const TRAY = trayOf('cylinder-10', [
  ['Chalk', '#ece7db', 'matte'],
  ['Slate', '#56636e', 'opaque'],
  ['Brick', '#a5482f', 'opaque'],
  ['Moss', '#67784a', 'opaque'],
  ['Slate again', '#56636e', 'opaque'],
  ['Brick dust', '#a94b32', 'opaque'],
  ['Nobody’s', '#d4b35c', 'lustre'],
  ['Spark', '#7fb6c4', 'transparent', 'bicone-3-mm'],
  ['Twin', '#8a6f9e', 'lustre', 'almond-duo-5-x-2-5-mm'],
  ['Tear', '#c98a5e', 'transparent', 'drop-3-4-mm'],
  ['Dome', '#3f7d74', 'lustre', 'domed-duo-5-x-2-5-mm'],
])

/** Two rings that share a dome: what is outward in one of them is inward in the other. */
const RINGS = valueOf(
  readRecipeText(`
recipe apprentice-rings "Rings of domes"
bead dome domed-duo-5-x-2-5-mm "dome" "domes"
bead seed cylinder-10 "seed" "seeds"
carrier thread thread 0.15 "thread"
motif
  pick dome:one seed:a*3 dome:two seed:z*3
  pass one
  pick seed:o*2
  pass one.b<
  pick seed:p*2
  pass one a two.b<
  pick seed:y*6
  pass two.b<
`),
)

/** The mark of one bead is that of another. */
const MARKED = TRAY.map((bead, k) => (k === 3 ? { ...bead, glyph: TRAY[2]!.glyph } : bead))

export const SAMPLER: Piece = hung(
  sized({
    name: 'Apprentice’s sampler',
    notes:
      'Practice pieces of one winter, planned in a hurry: in every part of it something is wrong. Proof finds what, ' +
      'and mends most of it.',
    tray: MARKED,
    fit: fitSchema.parse({
      ...{ kind: 'bracelet', wearer: 'Jonte', bodyMm: 170, easeMm: 13, widthMm: 40 },
      closure: usualClosure('magnet'),
    }),
    gauges: [],
    meant: [],
    supply: supplySchema.parse({ needle: '10', thread: 'nylon-d', doubled: true }),
    cost: costSchema.parse({ findings: [{ name: 'End caps, 1.5 mm inside', count: 2, price: 0 }] }),
    parts: [
      grid(
        { id: 'band', name: 'Band', technique: 'loom', times: 7 },
        Array.from({ length: 9 }, (_, r) => chevron(r)),
      ),
      grid({ id: 'practice', name: 'Diamonds', technique: 'loom', times: 1 }, practice()),
      grid({ id: 'short', name: 'Short diamonds', technique: 'loom', times: 1 }, short()),
      grid({ id: 'long', name: 'Long diamonds', technique: 'loom', times: 1 }, long()),
      grid({ id: 'stripe', name: 'Stripes', technique: 'loom', times: 4 }, [
        ...['ABABABAB', 'BBAABBAA', 'CCCCCCCC', 'ABABABAB', 'BBAABBAA', 'CCCCCCCC', 'ABABABAB', 'BBAABBAA'],
      ]),
      grid({ id: 'tube', name: 'Tube', technique: 'brick-tube', times: 5 }, [
        ...['ABDABDABDA', 'BDABDABDAB', 'DABDABDABD', 'ABDABDABDA'],
      ]),
      grid({ id: 'gable', name: 'Gable', technique: 'brick', times: 1 }, [
        ...['ABABABAB', '.BABABAB', '..ABABAB', '....BABA', '....ABAB', '.....ABA'],
      ]),
      lines(
        { id: 'fringe', name: 'Fringe', technique: 'fringe' },
        [4, 6, 8, 10, 12, 10, 8, 7, 4].map((n, k) => [...of(n - 1, 2), k === 4 ? 8 : 1]),
        { plan: { alike: 'free' } },
      ),
      lines({ id: 'ladder', name: 'Ladder', technique: 'rung-ladder' }, [
        ...[3, 5, 7, 10, 11, 13].map((n) => of(n, 5)),
        [...Array.from({ length: 15 }, () => 5)],
      ]),
      lines({ id: 'bar', name: 'Bar', technique: 'finding' }, [], { settings: { kind: 'holes', holes: 5, tall: 8 } }),
      ...(['left', 'right'] as const).map((side, k) => drop(side, k)),
      lines({ id: 'cycle', name: 'Cycle', technique: 'rung-ladder' }, [
        Array.from({ length: 11 }, (_, k) => [1, 2, 4][k % 3]!),
      ]),
      // Fours that come again eight times; one bead of the fourth is another.
      lines({ id: 'strand', name: 'Strand', technique: 'rung-ladder' }, [
        Array.from({ length: 8 }, () => [1, 1, 2, 4])
          .flat()
          .with(14, 1),
      ]),
      grid({ id: 'yoke', name: 'Yoke', technique: 'square', times: 1 }, [
        ...['AAA..AAA', 'AAA..AAA', 'AAAAAAAA', 'AJAAAAAA', 'AAAAAAIA', 'AAAAAAAA'],
      ]),
      lines(
        { id: 'rings', name: 'Rings', technique: 'own-recipe' },
        Array.from({ length: 3 }, () => [11, ...of(3, 2), 11, ...of(13, 2)]),
        { plan: { recipe: RINGS, params: {} } as unknown as Plan },
      ),
      grid({ id: 'spare', name: 'Spare', technique: 'loom', times: 1 }, ['......', '......']),
      { ...grid({ id: 'rope', name: 'Rope', technique: 'braid-8', times: 20 }, ['AABBAABB']), spec: 'cylinder-8' },
    ],
  }),
)
