/** A bead that is picked up: the part that it plays, and under which name and place it is remembered. */
export interface PickedBead {
  readonly slot: string
  /** What such a bead is called. */
  readonly called: string
  readonly spec: string
  /** The same in other lines where a bead of the same name stands at the same place. */
  readonly key: string
}

/** What work picks up, line by line; start and end have a line where they pick up anything. */
export interface PickedLines {
  readonly start: readonly PickedBead[]
  motif(m: number): readonly PickedBead[]
  readonly end: readonly PickedBead[]
}
