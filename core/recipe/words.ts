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
function passedWords(run: Run, { goes, motif }: Done, sizes: ReadonlyMap<string, number>): string {
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
      const where = first.motif === motif ? '' : first.motif < 0 ? ' of the beginning' : ' of the motif before'
      const named = first.name === first.slot ? '' : ` (${first.name})`
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

/** Steps of a run in words, one for each; with two carriers each says which. */
export function recipeWords(run: Run): string[] {
  const sizes = sizesOf(run)
  const two = run.head.carriers.length > 1
  return run.done.map((done) => {
    const { act, by, fixture, amount = 1, says, goes } = done
    const what = (): string => {
      const to = fixture === undefined ? '' : (run.head.fixtures[fixture]?.name ?? fixture)
      switch (act) {
        case 'pick':
          return `pick up ${pickedWords(run, done)}`
        case 'pass':
          return `${goes.every(({ way }) => way === -1) ? 'back through' : 'through'} ${passedWords(run, done, sizes)}`
        case 'fix':
          return `through the ${to}${amount > 1 ? ` ${timesWords(amount)}` : ''}`
        case 'wrap':
          return `wind ${turnsWords(amount)} round the ${to}`
        case 'knot':
          return 'knot'
        case 'say':
          return ''
      }
    }
    if (act === 'say') return says ?? ''
    return `${two ? `${carrierName(run.head, by)}: ` : ''}${what()}${says ? ` — ${says}` : ''}`
  })
}
