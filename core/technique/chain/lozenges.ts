import type { Design } from './design'
import { END_BEADS, END_FIELDS, END_FINDINGS, endSteps, FINISHES_OR_MEET, HITCHES, SURGEON } from './ends'

/**
 * A lozenge from link to link: its own, or the one that a ring began with. The link of the start is left by the end
 * that it was strung to; those of lozenges are come back through, and left where they were entered first.
 */
function lozenge(isLast = false, indent = 2): string {
  const [link, on, back] = isLast ? ['start/link', '<', ''] : ['link', '', '<']
  const throughFirst = (note = ''): string[] => [
    'when m=0',
    `  pass prev/link${note}`,
    'when m>0',
    `  pass prev/link<${note}`,
  ]
  return [
    ...(isLast
      ? ['pick leaf:upper*side', `pass ${link}${on} -- "the ring of lozenges closes"`, 'pick leaf:lower*side']
      : ['pick leaf:upper*side link leaf:lower*side']),
    ...throughFirst(' -- "the ring closes; draw it tight"'),
    'pass upper[0..-1].b -- "zigzag out to the second holes"',
    `pass ${link}${on}`,
    'pass lower[0..-1].b',
    ...throughFirst(),
    'pick centre',
    `pass ${link}${back} -- "across the middle"`,
  ]
    .map((line) => ' '.repeat(indent) + line)
    .join('\n')
}

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
  choices: { finish: FINISHES_OR_MEET },
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
${lozenge()}
end
${endSteps('prev/link<')}
${HITCHES}
`,
  ring: {
    start: `${SURGEON}
  pick link`,
    motif: `
  when m<n-1
${lozenge(false, 4)}
  when m=n-1
${lozenge(true, 4)}`,
    end: HITCHES,
  },
}
