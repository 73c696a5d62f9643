import type { Result } from '../problem'
import type { Plan } from './plan'

/** A plan that people write as a text, from which the lines of a part follow. */
export interface Script {
  readonly label: string
  readonly help: string
  write(plan: Plan): string
  read(text: string, before: Plan): Result<Plan>
}
