import type { Design } from './design'
import { END_BEADS, END_FIELDS, END_FINDINGS, endSteps, FINISHES, HITCHES, SURGEON } from './ends'

/**
 * Lozenges of beads with two holes: the thread draws a ring through their inner holes from link to link, zigzags out
 * to the second holes and round, and takes a centre bead across.
 */
export const lozenges: Design = {
  id: 'lozenges',
  name: 'Lozenges of two-hole beads',
  summary: 'Two-hole beads that lean round a centre, ring after ring, from link to link.',
  motif: 'lozenge',
  version: 1,
  choices: { finish: FINISHES },
  help: { side: 'At each side of the centre; three close round a centre of 4 mm.' },
  recipe: `
recipe lozenges "Lozenges of two-hole beads"
field side 2..4=3 "Two-hole beads at each side"
${END_FIELDS}
bead leaf almond-duo-5-x-2-5-mm "leaf" "leaves"
bead centre faceted-4-mm "centre bead" "centre beads"
bead link round-8 "link bead" "link beads"
${END_BEADS}
carrier thread thread 0.15 "thread"
${END_FINDINGS}
lies upper=-1 lower=1 centre=0 link=0
start
${SURGEON}
  pick link
${endSteps('link')}
motif
  pick leaf:upper*side link leaf:lower*side
  pass prev/link< -- "the ring closes; draw it tight"
  pass upper[0..-1].b -- "zigzag out to the second holes"
  pass link
  pass lower[0..-1].b
  pass prev/link<
  pick centre
  pass link< -- "across the middle"
end
${endSteps('prev/link<')}
${HITCHES}
`,
}
