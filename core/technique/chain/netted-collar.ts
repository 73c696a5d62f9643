import type { Design } from './design'

/**
 * Netting that hangs from a base string, worked down and up again: each way down is hung into the joints of the way up
 * before it. The base string gives the pitch.
 */
export const nettedCollar: Design = {
  id: 'netted-collar',
  name: 'Netted collar',
  summary: 'Open netting that hangs from a string of beads round the neck.',
  motif: 'step',
  thing: 'Collar',
  version: 1,
  kinds: ['choker', 'necklace', 'bracelet', 'anklet'],
  help: { deep: 'From the neck down.', arc: 'From a joint to the next.', base: 'For every two ways of the net.' },
  recipe: `
recipe netted-collar "Netted collar"
field deep 1..6=2 "Joints down"
field arc 1..6=3 "Beads in half a mesh"
field base 2..6=3 "Beads on the base string"
bead neck round-8 "neck bead" "neck beads"
bead net round-11 "net bead" "net beads"
bead joint ball-3-mm "joint" "joints"
bead tip round-11 "edge bead" "edge beads"
carrier thread thread 0.15 "thread"
hangs bar neck
start
  each i*deep
    pick net:begin*arc joint:up net:begin*arc
  pick neck
motif
  pick neck:bar*(base+1)/2
  each i*deep
    pick net*arc joint:down net*arc
    pass prev/up[deep-1-i]<
  pick tip*3
  each i*deep
    pick net*arc joint:up net*arc
    pass down[deep-1-i]<
  pick neck:bar*base/2
`,
}
