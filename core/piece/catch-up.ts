import { good, type Result } from '../problem'
import { carriedOver, EMPTY_HISTORY, type History } from './history'
import type { Piece } from './piece'
import { rebaseSteps } from './rebase'
import { applySteps, type Step, type Transaction } from './step'

/** A document that runs ahead of the server: what is acknowledged, what is not yet, and both together. */
export interface Ahead {
  /** Acknowledged revision. */
  readonly revision: number
  /** Id of the transaction that made it; empty for a piece as it was begun. */
  readonly head: string
  /** The piece at that revision. */
  readonly base: Piece
  /** Made here, not acknowledged, in order. */
  readonly pending: readonly Transaction[]
  /** base with pending applied: what is on the screen. */
  readonly piece: Piece
  readonly history: History
}

interface Incoming {
  readonly number: number
  readonly id: string
  readonly steps: Step[]
}

function takeOwn(ahead: Ahead, incoming: Incoming): Result<Ahead> {
  const base = applySteps(ahead.base, incoming.steps)
  return base.ok
    ? good({
        ...ahead,
        base: base.value,
        revision: incoming.number,
        head: incoming.id,
        pending: ahead.pending.slice(1),
      })
    : base
}

function takeOther(ahead: Ahead, incoming: Incoming): Result<Ahead> {
  const base = applySteps(ahead.base, incoming.steps)
  if (!base.ok) return base
  const pending: Transaction[] = []
  let here = ahead.base
  let theirs: Step[] = incoming.steps
  let piece = base.value
  for (const mine of ahead.pending) {
    const carried = rebaseSteps(mine.steps, theirs, here)
    if (!carried.ok) return carried
    const over = rebaseSteps(theirs, mine.steps, here, false)
    if (!over.ok) return over
    const next = applySteps(piece, carried.value)
    if (!next.ok) return next
    const moved = applySteps(here, mine.steps)
    if (!moved.ok) return moved
    if (carried.value.length > 0) pending.push({ ...mine, steps: carried.value })
    piece = next.value
    here = moved.value
    theirs = over.value
  }
  return good({
    revision: incoming.number,
    head: incoming.id,
    base: base.value,
    pending,
    piece,
    history: carriedOver(ahead.history, theirs, ahead.piece),
  })
}

/**
 * Takes in revisions from the server, in order. Those made here and not yet known to be saved are recognised by their
 * id; the edits of others go under what is pending. If two edits cannot both stand, the answer says so and nothing is
 * changed.
 */
export function catchUp(ahead: Ahead, incoming: readonly Incoming[]): Result<Ahead> {
  let now = ahead
  for (const revision of incoming) {
    if (revision.number <= now.revision) continue
    const next = now.pending[0]?.id === revision.id ? takeOwn(now, revision) : takeOther(now, revision)
    if (!next.ok) return next
    now = next.value
  }
  return good(now)
}

/**
 * A point on the line of a piece's revisions: its number, and the id of the transaction that made it (empty for the
 * piece as begun).
 */
export interface Point {
  readonly revision: number
  readonly head: string
}

/**
 * Whether the line that ends in `now` goes through `kept`; null if that cannot be seen from the last transactions of
 * it, `made`, oldest first. A line that does not was put back to an earlier day, or is another.
 */
export function goesThrough(
  kept: Point,
  now: Point,
  made: readonly Pick<Incoming, 'number' | 'id'>[],
): boolean | null {
  if (kept.revision === 0) return true
  if (kept.revision >= now.revision) return kept.revision === now.revision && kept.head === now.head
  const there = made.find((m) => m.number === kept.revision)
  return there ? there.id === kept.head : null
}

/** The server has stored the first `count` pending transactions, each as a revision. */
export function acknowledged(ahead: Ahead, count: number): Result<Ahead> {
  const sent = ahead.pending.slice(0, count)
  const base = applySteps(
    ahead.base,
    sent.flatMap((t) => t.steps),
  )
  return base.ok
    ? good({
        ...ahead,
        revision: ahead.revision + count,
        head: sent.at(-1)?.id ?? ahead.head,
        base: base.value,
        pending: ahead.pending.slice(count),
      })
    : base
}

/** Two lots of unsent edits that stand on one acknowledged revision, as one: the second goes on top of the first. */
export function stacked(first: Ahead, second: Ahead): Result<Ahead> {
  const over = catchUp(
    second,
    first.pending.map((t, k) => ({ number: second.revision + 1 + k, id: t.id, steps: t.steps })),
  )
  return over.ok
    ? good({
        ...first,
        pending: [...first.pending, ...over.value.pending],
        piece: over.value.piece,
        history: EMPTY_HISTORY,
      })
    : over
}
