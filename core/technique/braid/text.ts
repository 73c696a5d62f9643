import { bad, good, problem, type Result } from '../../problem'
import { checkPlan, type DiscAct, type DiscPlan } from '../disc'

/**
 * A braid table as text, to be typed and kept in a setting: `slots 8; load 2 3 4 5 6 7 8; move 4 1; turn 3`. Parts are
 * set apart by semicolons or new lines; arrows may stand in moves (`4→1`).
 */
export function planText({ slots, load, cycle }: DiscPlan): string {
  return [
    `slots ${slots}`,
    `load ${load.join(' ')}`,
    ...cycle.map((a) => (a.do === 'move' ? `move ${a.from} ${a.to}` : `turn ${a.by}`)),
  ].join('; ')
}

/** Reads a table and checks it by playing it; the sentence names the act that is wrong. */
export function readPlan(text: string): Result<DiscPlan> {
  let slots = 0
  let load: number[] = []
  const cycle: DiscAct[] = []
  for (const part of text
    .split(/[;\n]+/)
    .map((p) => p.trim().toLowerCase())
    .filter(Boolean)) {
    const match = /^(slots|load|move|turn)\s+([-\d\s,→>]+)$/.exec(part.replaceAll('−', '-'))
    const numbers = match
      ? match[2]!
          .split(/[\s,→>]+/)
          .filter(Boolean)
          .map(Number)
      : []
    if (!match || numbers.length === 0 || numbers.some((n) => !Number.isInteger(n)))
      return bad(
        problem(
          'table-unread',
          'table',
          `“${part}” is not understood. Write like: slots 8; load 2 3 4 5 6 7 8; move 4 1; turn 3.`,
        ),
      )
    const [first, second] = [numbers[0]!, numbers[1]]
    switch (match[1]) {
      case 'slots':
        slots = first
        break
      case 'load':
        load = numbers
        break
      case 'turn':
        cycle.push({ do: 'turn', by: first })
        break
      default:
        if (second === undefined || numbers.length !== 2)
          return bad(problem('table-unread', 'table', `“${part}” needs two slots: from and to.`))
        cycle.push({ do: 'move', from: first, to: second })
    }
  }
  const plan = { slots, load, cycle }
  const problems = checkPlan(plan)
  return problems.length > 0 ? bad(...problems) : good(plan)
}
