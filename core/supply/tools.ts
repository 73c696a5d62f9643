import { linksOf } from '../piece/joint'
import { discOf } from '../piece/nature'
import { rowsOf, techniqueOf, workOf, type Part, type Piece } from '../piece/piece'
import type { CarrierId } from '../technique/act'
import type { Need, Workplace } from '../technique/workplace'
import { closingOf, pathOf } from './thread'

/** What the technique of a part asks for of its own; null where carriers and closure say it all. */
export const workplaceOf = (piece: Pick<Piece, 'fit' | 'parts'>, part: Part): Workplace | null =>
  techniqueOf(part).workplace?.({ ...workOf(part), ...closingOf(piece, part) }) ?? null

const WIRE_TOOLS = ['Wire cutters', 'Chain-nose pliers', 'Round-nose pliers', 'File', 'Eye protection']

/** Tools that go with what works its way through beads (common practice). */
const CARRIER_TOOLS: Readonly<Partial<Record<CarrierId, readonly string[]>>> = {
  thread: ['Beading needle', 'Scissors', 'Wax or conditioner'],
  weft: ['Beading needle', 'Scissors'],
  warp: ['Bead loom'],
  wire: WIRE_TOOLS,
}

/** Everything to lay out besides what is used up, each once, in the order in which it is first asked for. */
export function toolsFor(piece: Piece): string[] {
  const tools = new Set<string>()
  for (const part of piece.parts) {
    if (rowsOf(part) === 0) continue
    const own = workplaceOf(piece, part)
    if (own) for (const tool of own.tools) tools.add(tool)
    else for (const { id } of pathOf(part, piece).runs) for (const tool of CARRIER_TOOLS[id] ?? []) tools.add(tool)
    const disc = discOf(part)
    if (disc) {
      tools.add('Braiding disc with a weight')
      tools.add('Bobbins, one for each strand')
    }
    if (own?.glued) tools.add('Glue for thread and cord')
  }
  if (linksOf(piece).length > 0) tools.add('Two pairs of flat pliers, to open and close rings')
  tools.add('Bead mat')
  return [...tools]
}

/** Findings by number that the work asks for, for one piece or one of a pair; equal ones together. */
export function needsFor(piece: Pick<Piece, 'fit' | 'parts'>): Need[] {
  const out = new Map<string, Need>()
  for (const part of piece.parts)
    for (const need of workplaceOf(piece, part)?.needs ?? []) {
      const there = out.get(need.name)
      out.set(need.name, there ? { ...there, count: there.count + need.count } : need)
    }
  return [...out.values()]
}
