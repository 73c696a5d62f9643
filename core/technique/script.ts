import type { Result } from '../problem'
import type { Plan } from './plan'

/** A bead that a script picks up: the part that it plays, and under which name and place it is remembered. */
export interface ScriptBead {
  readonly slot: string
  /** What such a bead is called. */
  readonly called: string
  readonly spec: string
  /** The same in another script where a bead of the same name stands at the same place. */
  readonly key: string
}

/** What a script picks up, line by line; start and end have a line where they pick up anything. */
export interface ScriptLines {
  readonly start: readonly ScriptBead[]
  motif(m: number): readonly ScriptBead[]
  readonly end: readonly ScriptBead[]
}

/** A plan that people write as a text, from which the lines of a part follow. */
export interface Script {
  readonly label: string
  readonly help: string
  write(plan: Plan): string
  read(text: string, before: Plan): Result<Plan>
  lines(plan: Plan, motifs: number): ScriptLines
}
