import { ownSpecId } from '../core/bead/spec'
import type { ShelfBead, ShelfValue } from '../core/shelf/shelf'

/** The box of the demo workshop: what lies in its drawers, a size measured with a caliper, and two stamps. All made up. */
const bead = (name: string, spec: string, colour: string, finish: ShelfBead['finish']): ShelfValue => ({ kind: 'bead', name, spec, colour, finish })

const MEASURED = ownSpecId({ shape: 'round', name: 'market rounds', d: 2.05, l: 1.5, h: 0.75, perGram: 112 })

/** A motif from rows of letters: a for the first bead, b for the second; a dot leaves what lies there. */
function stamp(name: string, technique: string, rows: readonly string[], beads: readonly (readonly [string, string, ShelfBead['finish']])[]): ShelfValue {
  return {
    kind: 'stamp', name, technique, columns: rows[0]!.length, rows: rows.length,
    cells: rows.flatMap(row => [...row].map(sign => (sign === '.' ? 0 : sign.charCodeAt(0) - 96))),
    beads: beads.map(([own, colour, finish]) => ({ name: own, spec: 'cylinder-11', colour, finish })),
  }
}

export const DEMO_SHELF: readonly ShelfValue[] = [
  bead('Fog', 'cylinder-11', '#d9d4c7', 'lustre'), bead('Kingfisher', 'cylinder-11', '#1b7fa3', 'lustre'), bead('Rust', 'cylinder-11', '#b5512b', 'matte'), bead('Old gold', 'cylinder-11', '#b98a2e', 'metallic'),
  bead('Night water', 'cylinder-11', '#252d52', 'metallic'), bead('Sedge', 'cylinder-11', '#6d8436', 'opaque'), bead('Pomegranate', 'cylinder-11', '#8f1f33', 'lustre'), bead('Chalk', 'cylinder-11', '#e9e3d4', 'matte'),
  bead('Cornflower', 'round-11', '#3f5fa8', 'transparent'), bead('Wheat', 'round-11', '#d6a545', 'lustre'), bead('Oil on water', 'round-8', '#5c6f7c', 'rainbow'), bead('Amber', 'drop-3-4-mm', '#c9822b', 'transparent'),
  bead('Slate', 'half-tile-5-x-2-3-mm', '#5d6670', 'matte'), bead('Moonstone', 'ball-4-mm', '#cfd6dc', 'lined'), bead('Heather', MEASURED, '#8a6a9c', 'lined'),
  { kind: 'spec', name: 'market rounds', spec: MEASURED },
  stamp('Little heart', 'loom', ['.aa.aa.', 'abbabba', 'abbbbba', '.abbba.', '..aba..', '...a...'], [['Night water', '#252d52', 'metallic'], ['Pomegranate', '#8f1f33', 'lustre']]),
  stamp('Leaf', 'peyote', ['..a..', '.aba.', 'aabaa', 'aabaa', '.aba.', '..b..'], [['Sedge', '#6d8436', 'opaque'], ['Old gold', '#b98a2e', 'metallic']]),
]
