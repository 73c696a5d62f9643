import { ordinal } from '../units/ordinal'
import { carrierName, type Done, type Going, type Node, type Run } from './run'

/** Beads of one slot and hole that follow each other in one way. */
interface Stretch {
  readonly nodes: readonly Node[]
  readonly hole: number
  readonly way: 1 | -1
}

/** Runs of holes of one name that are gone through in order. */
function stretches(goes: readonly Going[], nodes: readonly Node[], apart: (a: Node, b: Node) => boolean): Stretch[] {
  const out: { nodes: Node[]; hole: number; way: 1 | -1 }[] = []
  for (const { node, hole, way } of goes) {
    const next = nodes[node]!
    const last = out.at(-1)
    if (last && last.hole === hole && last.way === way && !apart(last.nodes.at(-1)!, next)) last.nodes.push(next)
    else out.push({ nodes: [next], hole, way })
  }
  return out
}

const byHole = (node: Node, hole: number): string =>
  node.passes.length > 1 ? `, ${hole === 0 ? 'first' : 'second'} hole` : ''

const slotName = ({ head }: Run, node: Node, many: boolean): string => {
  const slot = head.slots[node.slot]
  return (many ? slot?.many : slot?.name) ?? node.slot
}

/** Beads that a step picks up: “4 stem beads, 7 petals, 1 centre bead”. */
function pickedWords(run: Run, { goes }: Done): string {
  const apart = (a: Node, b: Node): boolean =>
    slotName(run, a, true) !== slotName(run, b, true) || a.passes.length !== b.passes.length
  return stretches(goes, run.nodes, apart)
    .map(({ nodes, hole }) => {
      const name = slotName(run, nodes[0]!, nodes.length > 1)
      const by = nodes[0]!.passes.length > 1 ? ` by the ${hole === 0 ? 'first' : 'second'} hole` : ''
      return `${nodes.length} ${name}${by}`
    })
    .join(', ')
}

/** Holes that a step goes through again: “the 4th petal”, “petals 2 to 5”, “all 3 cubes”. */
function passedWords(
  run: Run,
  { goes, motif }: Done,
  sizes: ReadonlyMap<string, number>,
  needsName: (node: Node) => boolean,
): string {
  const apart = (a: Node, b: Node): boolean =>
    slotName(run, a, true) !== slotName(run, b, true) ||
    a.name !== b.name ||
    a.motif !== b.motif ||
    Math.abs(a.at - b.at) !== 1
  return stretches(goes, run.nodes, apart)
    .map(({ nodes, hole }) => {
      const [first, last] = [nodes[0]!, nodes.at(-1)!]
      const all = sizes.get(sizeKey(first)) ?? 1
      const which =
        nodes.length > 1
          ? nodes.length === all
            ? `all ${all} ${slotName(run, first, true)}`
            : `${slotName(run, first, true)} ${first.at + 1} to ${last.at + 1}`
          : all > 1
            ? `the ${ordinal(first.at + 1)} ${slotName(run, first, false)}`
            : `the ${slotName(run, first, false)}`
      const where =
        first.motif === motif
          ? ''
          : first.motif < 0
            ? ' of the beginning'
            : first.motif === motif - 1
              ? ` of the ${run.head.unit ?? 'motif'} before`
              : ` of the first ${run.head.unit ?? 'motif'}`
      const named = first.name !== first.slot && needsName(first) ? ` (${first.name})` : ''
      return `${which}${named}${where}${byHole(first, hole)}`
    })
    .join('; ')
}

const sizeKey = ({ motif, name }: Node): string => `${motif} ${name}`

/** How many beads of each name each motif has picked up in the end. */
function sizesOf(run: Run): Map<string, number> {
  const sizes = new Map<string, number>()
  for (const node of run.nodes) sizes.set(sizeKey(node), (sizes.get(sizeKey(node)) ?? 0) + 1)
  return sizes
}

const timesWords = (amount: number): string => (amount === 1 ? 'once' : amount === 2 ? 'twice' : `${amount} times`)

function turnsWords(amount: number): string {
  if (amount === 0.5) return 'half a turn'
  return `${amount} ${amount === 1 ? 'turn' : 'turns'}`
}

/** Whether beads that are called alike are remembered under several names, so that a bead needs its own. */
function ambiguousIn(run: Run): (node: Node) => boolean {
  const names = new Map<string, Set<string>>()
  for (const node of run.nodes)
    if (!node.isFixture) {
      const called = slotName(run, node, true)
      names.set(called, (names.get(called) ?? new Set()).add(node.name))
    }
  return (node) => (names.get(slotName(run, node, true))?.size ?? 0) > 1
}

/** A step of a run in words. */
export interface StepWords {
  /** Which carrier, where there are two; empty otherwise. */
  readonly who: string
  /** What it does: “pick up 3 beads”, “back through all 3 cubes”. */
  readonly says: string
  /** What is said besides; empty for most. */
  readonly note: string
}

/** Steps of a run, one for each. */
export function stepWords(run: Run): StepWords[] {
  const sizes = sizesOf(run)
  const manyOf = ambiguousIn(run)
  const two = run.head.carriers.length > 1
  return run.done.map((done) => {
    const { act, by, fixture, amount = 1, says: note = '', goes } = done
    const who = two && act !== 'say' ? carrierName(run.head, by) : ''
    const to = fixture === undefined ? '' : (run.head.fixtures[fixture]?.name ?? fixture)
    switch (act) {
      case 'pick':
        return { who, says: `pick up ${pickedWords(run, done)}`, note }
      case 'pass': {
        const way = goes.every((g) => g.way === -1) ? 'back through' : 'through'
        return { who, says: `${way} ${passedWords(run, done, sizes, manyOf)}`, note }
      }
      case 'fix':
        return { who, says: `through the ${to}${amount > 1 ? ` ${timesWords(amount)}` : ''}`, note }
      case 'wrap':
        return { who, says: `wind ${turnsWords(amount)} round the ${to}`, note }
      case 'knot':
        return { who, says: 'knot', note }
      case 'say':
        return { who, says: note, note: '' }
    }
  })
}

/** A step as one sentence: “left needle: back through all 3 cubes — draw tight”. */
export const stepSentence = ({ who, says, note }: StepWords): string =>
  `${who ? `${who}: ` : ''}${says}${note ? ` — ${note}` : ''}`

/** Steps of a run in words, one sentence for each. */
export const recipeWords = (run: Run): string[] => stepWords(run).map(stepSentence)
