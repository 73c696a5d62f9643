import { modulo } from '../modulo'
import { placeOfKey } from '../grid/key'
import { siteIndexOf, type Lattice, type Place } from './lattice'

/**
 * Which beads touch on a rope whose beads lie anywhere on its unrolled surface: those no further apart than a little
 * more than the pitch of beads that share the room evenly. Distances count round the rope, and every touch counts both
 * ways. A bead that has fewer than two such neighbours makes the reach wider for all.
 * @param bead length along its hole and across it: a long bead reaches further round the rope than along it
 * @returns offsets to touching cells by site, as a lattice keeps them
 */
export function touchingOnRope(
  { pitchX, pitchY, period, sites }: Pick<Lattice, 'pitchX' | 'pitchY' | 'period' | 'sites'>,
  { l, d } = { l: 1, d: 1 },
): Place[][] {
  const { columns } = period
  const round = columns * pitchX
  // Measured in beads where these are not as long as wide; room is shared in the same measure.
  const [unitX, unitY] = [l, d]
  const share = Math.sqrt(((pitchX / unitX) * pitchY) / unitY)
  const at = (c: number, r: number) => {
    const site = sites[siteIndexOf(period, c, r)]!
    return { x: modulo(c, columns) * pitchX + site.dx, y: r * pitchY + site.dy }
  }
  // Rows further off than this cannot touch, whatever their sites.
  const offsets = sites.map((s) => s.dy)
  const spread = Math.max(...offsets) - Math.min(...offsets)
  for (let reach = 1.3; ; reach *= 1.15) {
    const far = Math.ceil((reach * share * unitY + spread) / pitchY)
    const touching = sites.map((_, i) => {
      const { c, r } = placeOfKey(columns, i)
      const here = at(c, r)
      const out: Place[] = []
      for (let dr = -far; dr <= far; dr++) {
        for (let there = 0; there < columns; there++) {
          if (dr === 0 && there === c) continue
          const { x, y } = at(there, r + dr)
          const dx = modulo(x - here.x + round / 2, round) - round / 2
          if (Math.hypot(dx / unitX, (y - here.y) / unitY) <= reach * share + 1e-9) out.push({ c: there - c, r: dr })
        }
      }
      return out
    })
    if (touching.every((list) => list.length >= 2)) return touching
  }
}
