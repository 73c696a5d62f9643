import type { Design } from './design'
import { MEET_FIELD, meetOr } from './ends'

/**
 * The row in which the ends of a band meet: it picks up sides only, between the last row and the first, whose beads it
 * passes as they were strung or against it.
 */
function closingRow(way: 'on' | 'back'): string {
  // The unit over the k-th, told for a row of the same way and of the other one.
  const first = (k: string): string =>
    way === 'back'
      ? `start/up[(${k}+1)*side-1..(${k})*side]<`
      : `start/up[(across-1-(${k}))*side..(across-(${k}))*side-1]`
  return `    pick bead:end*side
    pass ${first('0')} -- "the ring closes"
    pick bead:end*side
    pass prev/low[(across-1)*side..across*side-1] end[0..side-1] ${first('0')}
    when across>1
      pass end[side..2*side-1]
    each i*across-1
      when i%2=0
        pass prev/low[(across-2-i)*side..(across-1-i)*side-1]
        pick bead:end*side
        pass ${first('i+1')} end[(i+1)*side..(i+2)*side-1] prev/low[(across-2-i)*side..(across-1-i)*side-1]
        pass end[(i+2)*side..(i+3)*side-1]
      when i%2=1
        pass ${first('i+1')}
        pick bead:end*side
        pass prev/low[(across-2-i)*side..(across-1-i)*side-1] end[(i+1)*side..(i+2)*side-1]
        pass ${first('i+1')}
        when i<across-2
          pass end[(i+2)*side..(i+3)*side-1]`
}

/**
 * Right-angle band, worked to and fro with one needle: units of four sides, each of as many beads as is wished; a
 * motif is a row. Beads are named in the order of picking up, so that the row before is met from its far end and one
 * text serves for both ways; for that the count across is odd.
 */
export const angleBand: Design = {
  id: 'angle-band',
  name: 'Right-angle band',
  summary: 'Units of four sides, one to six beads a side; open and supple.',
  motif: 'row',
  thing: 'Band',
  version: 1,
  choices: {
    finish: meetOr('open', 'open: a closure is sewn on'),
    across: [1, 3, 5, 7, 9, 11].map((is) => ({ value: String(is), label: String(is), is })),
  },
  help: {
    across: 'An odd count: every row is met from its far end.',
    side: 'More beads a side make it wider and more open.',
  },
  recipe: `
recipe angle-band "Right-angle band"
field across 1..11=3 "Units across"
field side 1..6=1 "Beads at a side"
${MEET_FIELD}
bead bead ball-4-mm "bead" "beads"
carrier thread thread 0.15 "thread"
repeat to-and-fro
start
  pick bead:up*side bead:end*side bead:low*side bead:end*side
  pass up[0..-1] end[0..side-1] low[0..-1] end[side..2*side-1]
  each i*across-1
    when i%2=0
      pick bead:up*side bead:end*side bead:low*side
      pass end[(i+1)*side..(i+2)*side-1] up[(i+1)*side..(i+2)*side-1] end[(i+2)*side..(i+3)*side-1]
    when i%2=1
      pick bead:low*side bead:end*side bead:up*side
      pass end[(i+1)*side..(i+2)*side-1] low[(i+1)*side..(i+2)*side-1]
      when i<across-2
        pass end[(i+2)*side..(i+3)*side-1]
motif
  pick bead:end*side bead:low*side bead:end*side
  pass prev/low[(across-1)*side..across*side-1] end[0..side-1] low[0..side-1]
  when across>1
    pass end[side..2*side-1]
  each i*across-1
    when i%2=0
      pass prev/low[(across-2-i)*side..(across-1-i)*side-1]
      pick bead:end*side bead:low*side
      pass end[(i+1)*side..(i+2)*side-1] prev/low[(across-2-i)*side..(across-1-i)*side-1]
      pass end[(i+2)*side..(i+3)*side-1]
    when i%2=1
      pick bead:low*side bead:end*side
      pass prev/low[(across-2-i)*side..(across-1-i)*side-1] end[(i+1)*side..(i+2)*side-1]
      pass low[(i+1)*side..(i+2)*side-1]
      when i<across-2
        pass end[(i+2)*side..(i+3)*side-1]
`,
  ring: {
    end: `
  when n%2=1
${closingRow('back')}
  when n%2=0
${closingRow('on')}`,
  },
}
