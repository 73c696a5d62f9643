import type { Design } from './design'

/**
 * Loops or picots along an edge: a row of base beads, over so many of which a loop of arc beads and a tip stands; the
 * thread goes through those base beads again. Sewn to a band by its base row; with one arc bead at each side of the
 * tip it is a row of picots.
 */
export const edgeLoops: Design = {
  id: 'edge-loops',
  name: 'Loops and picots',
  summary: 'An edging: loops with a tip, or picots, on a row of base beads; for a band, a cuff or by itself.',
  motif: 'loop',
  thing: 'Edging',
  version: 1,
  tunes: ['between'],
  kinds: ['bracelet', 'anklet', 'choker', 'necklace', 'earrings'],
  help: {
    under: 'As many as lie under a loop on the edge.',
    arc: 'One makes a picot.',
    between: 'None sets loop to loop.',
  },
  recipe: `
recipe edge-loops "Loops and picots"
field under 1..8=3 "Base beads under a loop"
field between 0..6=1 "Base beads between loops"
field arc 1..9=3 "Beads at each side of the tip"
bead base round-11 "base bead" "base beads"
bead arc round-11 "arc bead" "arc beads"
bead tip round-8 "tip" "tips"
carrier thread thread 0.15 "thread"
motif
  pick base*under arc:rise*arc tip arc:fall*arc
  pass base[0..under-1] -- "the loop stands up; draw it close"
  pick base*between
end
  pick base
`,
}
