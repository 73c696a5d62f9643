import { facingOf, turnedBy, type Facing } from '../hang/facing'
import { fullerHoles, nearSpreads, spreadOver } from '../hang/spread'
import { drawnSize } from '../piece/drawn-size'
import { askewFindings } from './askew'
import { placesAlong } from '../piece/held'
import { holdsOf, turnsOfLink } from '../piece/joint'
import { isMade } from '../piece/nature'
import { findPart, techniqueOf, type Part, type Piece } from '../piece/piece'
import type { Joint } from '../piece/schema'
import type { Finding } from '../technique/technique'
import { plainNumber } from '../units/length'

/** What of the way in which parts hang on findings wants a look: holes, room, and which way things face. */

const tenth = (mm: number): string => plainNumber(Math.round(mm * 10) / 10)

/** “3, 5 and 7”. */
const listed = (numbers: readonly number[]): string => {
  const all = numbers.map((n) => String(n + 1))
  return all.length < 2 ? all.join('') : `${all.slice(0, -1).join(', ')} and ${all.at(-1)}`
}

/** Share by which a row may be longer than its holes before it rides up. */
const TIGHT = 0.05

/** A row of beads over the holes of a finding: which take two, and whether it has room. */
function holeFindings(part: Part, holder: Part, holes: readonly { readonly x: number }[]): Finding[] {
  const beads = placesAlong(part, 'start')
  const count = beads.length
  if (count === 0 || holes.length === 0) return []
  const spread = spreadOver(holes.length, count)
  const out: Finding[] = []
  if (!spread) {
    const near = nearSpreads(holes.length, count)
    out.push({
      code: 'holes-uneven',
      weight: 'note',
      says:
        `${count} beads of ${part.name} cannot lie alike from both sides over the ${holes.length} holes of ` +
        `${holder.name}: take ${near.join(' or ')}.`,
    })
  } else if (count !== holes.length) {
    const full = fullerHoles(spread)
    const most = Math.max(...spread)
    const words = ['no bead', 'one bead', 'two beads', 'three beads'][most] ?? `${most} beads`
    out.push({
      code: 'holes-shared',
      weight: 'note',
      says:
        count > holes.length
          ? `${count} beads over ${holes.length} holes: hole${full.length === 1 ? '' : 's'} ${listed(full)} ` +
            `take${full.length === 1 ? 's' : ''} ${words}.`
          : `${count} beads over ${holes.length} holes: use hole${full.length === 1 ? '' : 's'} ${listed(full)}.`,
    })
  }
  const wide = Math.abs(beads[0]!.x - beads.at(-1)!.x)
  const room = Math.abs(holes[0]!.x - holes.at(-1)!.x)
  if (wide > room * (1 + TIGHT) + 0.05 && count > 1)
    out.push({
      code: 'holes-tight',
      weight: 'note',
      says:
        `The row is ${tenth(wide)} mm from its first bead to its last, the holes ${tenth(room)} mm: it rides up. ` +
        'Use smaller top beads or fewer of them.',
    })
  return out
}

/** Beads that a bar or hoop has no room for. */
function roomFindings(part: Part, holder: Part, room: (wide: number) => number): Finding[] {
  const beads = placesAlong(part, 'start')
  const bead = beads[0]?.bead
  if (!bead || !('d' in bead)) return []
  const most = room(bead.d)
  return beads.length > most
    ? [
        {
          code: 'finding-full',
          weight: 'stops',
          says:
            `${part.name} has ${beads.length} beads in its first row, and ${holder.name} has room for ${most}. ` +
            'Take fewer columns, smaller beads, or a larger finding.',
        },
      ]
    : []
}

/** What links may pull inward or outward on each side before it is seen, mm. */
const SLANT_MM = 2

/** A part that hangs at several places of a finding which lie nearer or wider than it is. */
function slantFindings(part: Part, holder: Part, on: Joint): Finding[] {
  const places = on.link && on.holes.length > 1 ? (holdsOf(holder, on.at)?.places ?? []) : []
  const xs = on.holes.flatMap((hole) => (places[hole - 1] ? [places[hole - 1]!.x] : []))
  if (xs.length < 2) return []
  const apart = Math.max(...xs) - Math.min(...xs)
  const { width, length } = drawnSize(part)
  const wide = on.by === 'start' || on.by === 'end' ? width : length
  return Math.abs(wide - apart) <= 2 * SLANT_MM
    ? []
    : [
        {
          code: 'links-slant',
          weight: 'note',
          says:
            `${part.name} is ${tenth(wide)} mm wide and hangs from places ${tenth(apart)} mm apart: its links pull ` +
            `${wide > apart ? 'inward' : 'outward'}. Let the places lie as far apart as it is wide.`,
        },
      ]
}

/** How a part faces, from the loop that the piece hangs by; front where beadwork on thread turns freely. */
function facingIn(piece: Pick<Piece, 'fit' | 'parts'>, part: Part): Facing {
  const parent = part.on ? findPart(piece as Piece, part.on.part) : undefined
  const across = techniqueOf(part).eyeAcross?.(part.settings) ?? null
  if (!parent)
    return across === null ? 'front' : facingOf({ hook: piece.fit.closure.loop, rings: 0, eyeAcross: across })
  const above = facingIn(piece, parent)
  // What is sewn on faces as what it is sewn to.
  if (across === null) return above
  const turns = part.on!.link ? turnsOfLink(part.on!.link) : null
  // A chain of links that nobody counted turns as it likes.
  return turns === null ? 'front' : turnedBy(above, turns + (across ? 1 : 0))
}

/** Whether it hangs from the loop of an ear wire. */
const isWornByLoop = ({ fit }: Pick<Piece, 'fit'>): boolean => fit.closure.kind === 'ear-wire'

/** What of a part and what it hangs on wants a look. */
export function hangingFindings(part: Part, piece: Pick<Piece, 'fit' | 'parts'>): Finding[] {
  const out: Finding[] = []
  const holder = part.on ? piece.parts.find((p) => p.id === part.on!.part) : undefined
  if (part.on && holder && part.on.by === 'start' && !part.on.link && isMade(part) && !techniqueOf(part).hangs) {
    const holds = holdsOf(holder, part.on.at)
    if (holds?.room) out.push(...roomFindings(part, holder, holds.room))
    else if (holds) out.push(...holeFindings(part, holder, holds.places))
  }
  if (part.on && holder) out.push(...slantFindings(part, holder, part.on))
  out.push(...askewFindings(part, piece))
  // Beadwork on thread turns freely; what is bent of wire does not, where it hangs by its own loop.
  const turns = !isMade(part) || (part.on === null && techniqueOf(part).eyeAcross !== undefined && isWornByLoop(piece))
  if (turns && facingIn(piece, part) === 'side')
    out.push({
      code: 'faces-side',
      weight: 'note',
      says:
        `${part.name} shows its edge: each loop and ring turns what hangs by a quarter. Put one ring more between, ` +
        'take one out, or turn its loop.',
    })
  return out
}
