import type { Design } from './design'
import { HITCHES, MEET_FIELD, meetOr, SURGEON } from './ends'

/** A medallion, joined to the one before. */
const SQUARE = `${SURGEON}
  pick large*4
  pass large[0] -- "draw the ring tight"
  pick heart
  pass large[3] large[0] -- "the heart lies in the middle"
  pick corner
  pass large[1]
  pick corner
  pass large[2]
  pick corner
  pass large[3]
  pick corner
  pass large[0] corner[0] -- "step up"
  pick small*edge
  pass corner[1]
  pick small*edge
  pass corner[2]
  pick small*edge
  pass corner[3]
  pick small*edge
  pass corner[0]
  when m>0
    when join=0
      pick bugle:upper
    when join=1
      pick joint:upperseed*seeds
    pass prev/corner[1] prev/small[edge..2*edge-1] prev/corner[2]
    when join=0
      pick bugle:lower
    when join=1
      pick joint:lowerseed*seeds
    pass corner[3] small[3*edge..-1] corner[0]`

/**
 * Square medallions: four large beads round a heart, corner beads between them, small beads along the sides; joined in
 * pairs by bugles, or by as many seeds as are as long. Each is worked with a length of its own.
 */
export const medallions: Design = {
  id: 'medallions',
  name: 'Square medallions',
  summary: 'Squares of four large beads edged with seeds, joined side to side by bugles or by seeds.',
  motif: 'medallion',
  version: 1,
  choices: {
    finish: meetOr('loops', 'a loop of beads at each'),
    join: [
      { value: 'bugles', label: 'bugles', is: 0 },
      { value: 'seeds', label: 'seeds', is: 1 },
    ],
  },
  help: {
    edge: 'Along each side, between two corners.',
    seeds: 'Where seeds join them: as many as are as long as a bugle would be; four of 11/0 for one of 6 mm.',
    loop: 'At the first and at the last medallion.',
  },
  recipe: `
recipe medallions "Square medallions"
field edge 1..4=3 "Small beads along a side"
${MEET_FIELD}
field join 0..1=0 "Joined by"
field seeds 1..12=4 "Seeds in place of a bugle"
field loop 5..9=7 "Beads in an end loop"
field again 1..3=2 "Times through an end loop"
bead large ball-4-mm "large bead" "large beads"
bead corner round-8 "corner bead" "corner beads"
bead small round-11 "small bead" "small beads"
bead heart round-11 "heart" "hearts"
bead bugle bugle-6-mm "bugle" "bugles"
bead joint round-11 "joint bead" "joint beads"
bead loop round-11 "loop bead" "loop beads"
carrier thread thread 0.15 "thread"
cut each motif
motif
${SQUARE}
  when m=0
    pass small[0..edge-1] corner[1] small[edge..2*edge-1] corner[2] -- "round to the far side"
    pass small[2*edge..3*edge-1] corner[3]
    pass small[3*edge..3*edge+(edge-1)/2]
    pick loop:first*loop
    pass small[3*edge+(edge-1)/2] -- "draw the loop round"
    each i*again-1
      pass first[0..-1] small[3*edge+(edge-1)/2]
  when m=n-1
    pass small[0..edge-1] corner[1] small[edge..edge+(edge-1)/2]
    pick loop:last*loop
    pass small[edge+(edge-1)/2] -- "draw the loop round"
    each i*again-1
      pass last[0..-1] small[edge+(edge-1)/2]
${HITCHES}
`,
  ring: {
    motif: `
${SQUARE}
  when m=n-1
    pass small[0..edge-1] corner[1] small[edge..2*edge-1] corner[2] -- "round to the far side"
    when join=0
      pick bugle:closing
    when join=1
      pick joint:closingseed*seeds
    pass first/corner[3] first/small[3*edge..-1] first/corner[0] -- "the ring closes"
    when join=0
      pick bugle:lastone
    when join=1
      pick joint:lastseed*seeds
    pass corner[1] small[edge..2*edge-1] corner[2]
${HITCHES}`,
  },
}
