import { bad, good, problem, type Result } from '../problem'
import { readRecipe } from './check'
import { RECIPE_LIMITS, RECIPE_SECTIONS, type Expr, type Item, type Recipe, type Ref, type Step } from './language'

/**
 * A recipe in short hand, for people and tests: a line for each thing, steps within steps two spaces further in.
 *
 *     recipe flower "Flower link chain"
 *     field s 0..20=4 "Stem beads"
 *     bead petal round-8 "petal" "petals"
 *     carrier thread thread 0.15 "thread"
 *     fixture cap d=4 "end cap"
 *     start
 *       fix cap
 *     motif
 *       pick stem*s petal*(p+1)/2 centre
 *       pass petal[0]<
 *     end
 *       pick stem*s
 *
 * An item is `slot:name.hole*count`, a reference `prev/name[from..to].hole<`; what is as usual is left out. `left:`
 * before a step says the carrier, ` -- ` behind it a note.
 */

// ---- written

const quoted = (text: string): string => JSON.stringify(text)

const exprText = (expr: Expr): string => String(expr).replaceAll(' ', '')

export const itemText = ({ slot, as, hole, count }: Item): string =>
  `${slot}${as === undefined ? '' : `:${as}`}${hole === 'b' ? '.b' : ''}${count === 1 ? '' : `*${exprText(count)}`}`

const OF = { this: '', prev: 'prev/', start: 'start/', first: 'first/' } as const

export function refText({ bead, of, at, to, hole, way }: Ref): string {
  const where = to === undefined ? (at === 0 ? '' : `[${exprText(at)}]`) : `[${exprText(at)}..${exprText(to)}]`
  return `${OF[of]}${bead}${where}${hole === 'b' ? '.b' : ''}${way === 'back' ? '<' : ''}`
}

/** Lines of a list of steps, each so many spaces in. */
export function stepLines(steps: readonly Step[], indent = 0): string[] {
  const pad = ' '.repeat(indent)
  return steps.flatMap((step) => {
    if (step.do === 'each')
      return [`${pad}each ${step.with}*${exprText(step.times)}`, ...stepLines(step.steps, indent + 2)]
    if (step.do === 'when') return [`${pad}when ${exprText(step.if)}`, ...stepLines(step.steps, indent + 2)]
    if (step.do === 'say') return [`${pad}say ${quoted(step.text)}`]
    const by = step.by === undefined ? '' : `${step.by}: `
    const note = step.note === undefined ? '' : ` -- ${quoted(step.note)}`
    return [`${pad}${by}${ownText(step)}${note}`]
  })
}

function ownText(step: Exclude<Step, { do: 'each' | 'when' | 'say' }>): string {
  switch (step.do) {
    case 'pick':
      return `pick ${step.items.map(itemText).join(' ')}`
    case 'pass':
      return `pass ${step.refs.map(refText).join(' ')}`
    case 'fix':
      return `fix ${step.fixture}${step.hole === undefined ? '' : `[${exprText(step.hole)}]`}${
        step.times === undefined ? '' : `*${exprText(step.times)}`
      }`
    case 'wrap':
      return `wrap ${step.fixture}*${exprText(step.turns)}`
    case 'knot':
      return `knot ${step.mm}`
  }
}

/** A recipe in short hand. */
export function recipeText(recipe: Recipe): string {
  const { id, name, params, slots, carriers, cut, fixtures, repeat, hangs, lies } = recipe
  return [
    `recipe ${id} ${quoted(name)}`,
    ...params.map((p) => `field ${p.id} ${p.least}..${p.most}=${p.usual} ${quoted(p.label)}`),
    ...Object.entries(slots).map(([key, s]) => `bead ${key} ${s.spec} ${quoted(s.name)} ${quoted(s.many)}`),
    ...carriers.map((c) => `carrier ${c.id} ${c.kind} ${c.mm} ${quoted(c.name)}`),
    ...Object.entries(fixtures).map(
      ([key, f]) =>
        `fixture ${key} d=${f.d}${f.holes === 1 ? '' : ` holes=${f.holes}`}` +
        `${f.pitch === 0 ? '' : ` pitch=${f.pitch}`} ${quoted(f.name)}`,
    ),
    ...(cut.folded ? ['cut folded'] : []),
    ...(cut.each === 'motif' ? ['cut each motif'] : []),
    ...(repeat === 'along' ? [] : [`repeat ${repeat}`]),
    ...(hangs.length > 0 ? [`hangs ${hangs.join(' ')}`] : []),
    ...(Object.keys(lies).length > 0
      ? [
          `lies ${Object.entries(lies)
            .map(([key, where]) => `${key}=${where}`)
            .join(' ')}`,
        ]
      : []),
    ...RECIPE_SECTIONS.flatMap((section) =>
      recipe[section].length > 0 ? [section, ...stepLines(recipe[section], 2)] : [],
    ),
    '',
  ].join('\n')
}

// ---- read

/** What is wrong in a line. */
class Unread extends Error {}

const exprOf = (text: string): Expr => (/^-?\d{1,7}$/.test(text) ? Number(text) : text)

const ITEM = /^([a-zA-Z0-9]+)(?::([a-zA-Z0-9]+))?(?:\.([ab]))?(?:\*(.+))?$/

export function readItem(text: string): Item {
  const found = ITEM.exec(text)
  if (!found) throw new Unread(`“${text}” is no bead to pick up: write slot:name.hole*count, as in petal*4.`)
  const [, slot, as, hole, count] = found
  return {
    slot: slot!,
    ...(as === undefined ? {} : { as }),
    hole: (hole as 'a' | 'b' | undefined) ?? 'a',
    count: count === undefined ? 1 : exprOf(count),
  }
}

const REF = /^(?:(prev|start|first)\/)?([a-zA-Z0-9]+)(?:\[([^\]]+?)(?:\.\.([^\]]+))?\])?(?:\.([ab]))?([<>])?$/

export function readRef(text: string): Ref {
  const found = REF.exec(text)
  if (!found) throw new Unread(`“${text}” is no bead to go through: write name[from..to].hole<, as in petal[0]<.`)
  const [, of, bead, at, to, hole, way] = found
  return {
    bead: bead!,
    of: (of as Exclude<Ref['of'], 'this'> | undefined) ?? 'this',
    at: at === undefined ? 0 : exprOf(at),
    ...(to === undefined ? {} : { to: exprOf(to) }),
    hole: (hole as 'a' | 'b' | undefined) ?? 'a',
    way: way === '<' ? 'back' : 'on',
  }
}

/** A text in quotes, as JSON writes it. */
function unquoted(text: string): string {
  try {
    const read: unknown = JSON.parse(text)
    if (typeof read === 'string') return read
  } catch {
    // told below
  }
  throw new Unread(`${text} should be a text in quotes: "…".`)
}

/** The words of a line: texts in quotes are one. */
const wordsOf = (line: string): string[] => line.match(/"(?:[^"\\]|\\.)*"|\S+/g) ?? []

const words = (rest: string, least: number): string[] => {
  const list = wordsOf(rest)
  if (list.length < least) throw new Unread(`“${rest}” says too little: ${least} things are needed here.`)
  return list
}

const OWN = /^(?:([a-z][a-zA-Z0-9]*): )?(pick|pass|fix|wrap|knot) (.*?)(?: -- ("(?:[^"\\]|\\.)*"))?$/

function readStep(line: string): Step {
  const found = OWN.exec(line)
  if (!found) throw new Unread(`“${line}” is no step: begin with pick, pass, fix, wrap, knot, say, each or when.`)
  const [, by, verb, rest, note] = found
  const told = {
    ...(by === undefined ? {} : { by }),
    ...(note === undefined ? {} : { note: unquoted(note) }),
  }
  switch (verb) {
    case 'pick':
      return { do: 'pick', items: words(rest!, 1).map(readItem), ...told }
    case 'pass':
      return { do: 'pass', refs: words(rest!, 1).map(readRef), ...told }
    case 'knot':
      return { do: 'knot', mm: Number(rest), ...told }
  }
  const to = /^([a-zA-Z0-9]+)(?:\[(.+?)\])?(?:\*(.+))?$/.exec(rest!)
  if (!to) throw new Unread(`“${rest}” is nothing to fix to or wind round: write its name, as in clasp*2.`)
  const [, fixture, hole, times] = to
  if (verb === 'wrap') return { do: 'wrap', fixture: fixture!, turns: turnsOf(times ?? '1'), ...told }
  return {
    do: 'fix',
    fixture: fixture!,
    ...(hole === undefined ? {} : { hole: exprOf(hole) }),
    ...(times === undefined ? {} : { times: exprOf(times) }),
    ...told,
  }
}

const turnsOf = (text: string): Expr => (/^\d+(?:\.\d+)?$/.test(text) ? Number(text) : text)

interface Line {
  readonly number: number
  readonly indent: number
  readonly text: string
}

/** Steps that stand so far in, and where they end. */
function readSteps(lines: readonly Line[], from: number, indent: number): { steps: Step[]; next: number } {
  const steps: Step[] = []
  let at = from
  while (at < lines.length && lines[at]!.indent >= indent) {
    const line = lines[at]!
    if (line.indent > indent) throw new Unread(`Line ${line.number} stands too far in.`)
    const inside = /^(each|when) (.+)$/.exec(line.text)
    at++
    if (!inside) {
      const said = /^say (".*")$/.exec(line.text)
      steps.push(said ? { do: 'say', text: unquoted(said[1]!) } : inLine(line, () => readStep(line.text)))
      continue
    }
    const { steps: own, next } = readSteps(lines, at, indent + 2)
    at = next
    if (inside[1] === 'when') steps.push({ do: 'when', if: exprOf(inside[2]!), steps: own })
    else {
      const [, counter, times] = /^([a-zA-Z0-9]+)\*(.+)$/.exec(inside[2]!) ?? []
      if (times === undefined) throw new Unread(`Line ${line.number}: write each name*times, as in each i*4.`)
      steps.push({ do: 'each', with: counter!, times: exprOf(times), steps: own })
    }
  }
  return { steps, next: at }
}

function inLine<T>(line: Line, work: () => T): T {
  try {
    return work()
  } catch (error) {
    if (error instanceof Unread) throw new Unread(`Line ${line.number}: ${error.message}`)
    throw error
  }
}

const keyed = (list: readonly string[]): Record<string, number> =>
  Object.fromEntries(
    list.map((one) => {
      const [key, value] = one.split('=')
      return [key!, Number(value)]
    }),
  )

/** Reads a recipe in short hand. */
export function readRecipeText(text: string): Result<Recipe> {
  if (text.length > RECIPE_LIMITS.text)
    return bad(
      problem('too-large', 'recipe', `A recipe takes at most ${RECIPE_LIMITS.text / 1024} kB: make two of it.`),
    )
  const lines = text.split(/\r?\n/).flatMap((raw, k): Line[] => {
    const line = raw.trimEnd()
    return line.trim() === '' || line.trim().startsWith('#')
      ? []
      : [{ number: k + 1, indent: line.length - line.trimStart().length, text: line.trim() }]
  })
  const draft: Record<string, unknown> & { params: unknown[]; slots: object; carriers: unknown[]; fixtures: object } =
    {
      params: [],
      slots: {},
      carriers: [],
      fixtures: {},
    }
  const cut: { folded: boolean; each: string } = { folded: false, each: 'piece' }
  try {
    for (let at = 0; at < lines.length;) {
      const line = lines[at]!
      const section = RECIPE_SECTIONS.find((name) => name === line.text)
      if (section) {
        const { steps, next } = readSteps(lines, at + 1, 2)
        draft[section] = steps
        at = next
        continue
      }
      inLine(line, () => {
        readHead(line.text, draft, cut)
      })
      at++
    }
  } catch (error) {
    if (error instanceof Unread) return bad(problem('short-hand', 'recipe', error.message))
    throw error
  }
  const read = readRecipe({ ...draft, cut })
  return read.ok ? good(read.value) : read
}

function readHead(
  text: string,
  draft: Record<string, unknown> & { params: unknown[]; slots: object; carriers: unknown[]; fixtures: object },
  cut: { folded: boolean; each: string },
): void {
  const [what, ...rest] = wordsOf(text)
  switch (what) {
    case 'recipe': {
      const [id, name] = words(rest.join(' '), 2)
      Object.assign(draft, { id, name: unquoted(name!) })
      return
    }
    case 'field': {
      const [id, range, label] = words(rest.join(' '), 3)
      const found = /^(-?\d+)\.\.(-?\d+)=(-?\d+)$/.exec(range!)
      if (!found) throw new Unread(`“${range}” should be least..most=usual, as in 0..20=4.`)
      const [least, most, usual] = found.slice(1).map(Number)
      draft.params.push({ id, least, most, usual, label: unquoted(label!) })
      return
    }
    case 'bead': {
      const [key, spec, name, many] = words(rest.join(' '), 4)
      draft.slots = { ...draft.slots, [key!]: { spec, name: unquoted(name!), many: unquoted(many!) } }
      return
    }
    case 'carrier': {
      const [id, kind, mm, name] = words(rest.join(' '), 4)
      draft.carriers.push({ id, kind, mm: Number(mm), name: unquoted(name!) })
      return
    }
    case 'fixture': {
      const [key, ...more] = words(rest.join(' '), 3)
      draft.fixtures = { ...draft.fixtures, [key!]: { ...keyed(more.slice(0, -1)), name: unquoted(more.at(-1)!) } }
      return
    }
    case 'cut':
      if (rest.join(' ') === 'folded') cut.folded = true
      else if (rest.join(' ') === 'each motif') cut.each = 'motif'
      else throw new Unread('Write “cut folded” or “cut each motif”.')
      return
    case 'repeat':
      draft.repeat = rest[0]
      return
    case 'hangs':
      draft.hangs = rest
      return
    case 'lies':
      draft.lies = keyed(rest)
      return
    default:
      throw new Unread(
        `“${what}” begins no line: recipe, field, bead, carrier, fixture, cut, repeat, hangs, lies, start, motif, end`,
      )
  }
}
