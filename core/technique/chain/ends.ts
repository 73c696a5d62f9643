/**
 * Ends of chains in short hand: a loop of beads drawn round, a loop through the clasp’s ring, a bead before a cord
 * end, or a bead before a jump ring; each gone through again as often as is wished (common practice: 5–7 beads in a
 * loop or 3 + clasp + 3, passed two or three times).
 */

/** Fields, beads and findings that the ends of a chain need. */
export const END_FIELDS = `field finish 0..4=0 "Ends"
field loop 5..9=7 "Beads in an end loop"
field again 1..3=2 "Times through an end loop"`
export const END_BEADS = `bead loop round-11 "loop bead" "loop beads"`
export const END_FINDINGS = `fixture clasp d=5 "clasp ring"
fixture cord d=4 "cord end"
fixture crimp d=2 "crimp"
fixture ring d=5 "jump ring"`

/** What the findings at the ends are handled with, by their names in the recipe. */
export const END_TOOLS: Readonly<Record<string, string>> = {
  crimp: 'Crimping pliers',
  ring: 'Two pairs of flat pliers, to open and close rings',
}

/** What is said of the fields of the ends. */
export const END_HELP: Readonly<Record<string, string>> = {
  finish: 'The same at both ends, or none: then nothing closes it, and what is needed stands under Supplies.',
  loop: 'Five to seven for a small clasp.',
  again: 'Two or three passes hold longer than one.',
}

/** Choices of the field `finish`. */
export const FINISHES = [
  { value: 'loop', label: 'a loop of beads', is: 0 },
  { value: 'clasp', label: 'three beads, the clasp, three beads', is: 1 },
  { value: 'cord', label: 'a cord end with a crimp', is: 2 },
  { value: 'ring', label: 'a jump ring', is: 3 },
] as const

/** The choice of a design whose last motif can be worked on to its first. */
export const MEET = 'meet'

/** Fields and choices of a design that has no ends but such as meet. */
export const MEET_FIELD = 'field finish 0..1=0 "Ends"'
export const meetOr = (value: string, label: string) =>
  [
    { value, label, is: 0 },
    { value: MEET, label: 'meet: a ring', is: 1 },
  ] as const

/** Ends as above, or such as meet. */
export const FINISHES_OR_MEET = [...FINISHES, { value: MEET, label: 'meet: a ring', is: 4 }] as const

/** Length that knots take, mm (from memory): a surgeon’s knot, and two half hitches. */
const SURGEON_MM = 10
const HITCHES_MM = 6

/**
 * Steps of an end, so many spaces in: what is picked up, and how the thread comes back. `closing` are the beads that
 * it passes when the loop is drawn round; the first bead of the loop if it hangs on nothing else.
 */
export function endSteps(closing = 'loop[0]', indent = 2): string {
  const isOwn = closing === 'loop[0]'
  const lines = [
    'when finish=0',
    '  pick loop*loop',
    `  pass ${closing} -- "draw the loop round"`,
    '  each i*again-1',
    `    pass loop[${isOwn ? 1 : 0}..-1] ${closing}`,
    'when finish=1',
    '  pick loop*3',
    '  fix clasp',
    '  pick loop*3',
    `  pass ${closing} -- "draw the loop round the ring"`,
    '  each i*again-1',
    `    pass loop[${isOwn ? 1 : 0}..2]`,
    '    fix clasp',
    `    pass loop[3..5] ${closing}`,
    'when finish=2',
    '  pick loop',
    '  fix crimp',
    '  fix cord*again',
    '  fix crimp -- "press it flat where the thread comes back"',
    '  pass loop<',
    ...(isOwn ? [] : [`  pass ${closing}`]),
    'when finish=3',
    '  pick loop',
    '  fix ring*again',
    '  pass loop<',
    ...(isOwn ? [] : [`  pass ${closing}`]),
  ]
  return lines.map((line) => ' '.repeat(indent) + line).join('\n')
}

export const SURGEON = `  knot ${SURGEON_MM} -- "surgeon’s knot: twice over, once back"`
export const HITCHES = `  knot ${HITCHES_MM} -- "two half hitches over the thread between beads"`
