import { expect, test } from '@playwright/test'
import { setStep, layingSteps } from '#core/piece/edit'
import { applySteps } from '#core/piece/step'
import { valueOf } from '#core/problem'
import { throwAwayCluster } from '../../launcher/postgres'
import { connect } from '../../server/database/connection'
import { migrate } from '../../server/database/migrate'
import { join } from '../../server/service/account'
import { createPiece, saveSteps } from '../../server/service/piece'
import { piece } from '../fixture/piece'

/** Steps in each of the five rounds, by each of those who save at once. */
const EACH = 60
const AT_ONCE = 4
/** Saved before anything is measured: a server that has run for a while, not one that is just loaded. */
const WARM = 2000

/**
 * Saving a step against a bare insert of the same bytes, same pool, both durable, on a warm server; median of five
 * rounds. Four people save at once, each a piece of their own. One alone is measured beside it: there every pause of
 * the application, however short, also lets the database fall asleep, which a bare insert never does.
 */
test('saving a step against a bare insert', async () => {
  const cluster = await throwAwayCluster({ durable: true })
  const db = connect(cluster.url)
  try {
    await migrate(db)
    const account = await join(db, { signIn: 'Bench', password: 'a long enough word' })
    let now = piece()
    const list = Array.from({ length: WARM + 10 * EACH }, (_, k) => {
      const steps = [
        ...layingSteps(now.parts[0]!, new Map([[k % 16, 1 + ((k + 1) % 3)]])),
        setStep(now, ['notes'], `note ${k}`),
      ]
      now = valueOf(applySteps(now, steps))
      return { id: `bench-${k}-00`, label: 'edit', steps }
    })
    await db.raw('create table bare (id serial primary key, steps jsonb not null)')
    const bodies = list.map((t, k) =>
      new TextEncoder().encode(JSON.stringify({ base: k, on: list[k - 1]?.id ?? '', transactions: [t] })),
    )
    const ids = await Promise.all(
      Array.from({ length: AT_ONCE }, async () => (await createPiece(db, account.id, piece())).id),
    )
    const bare = (_: string, k: number) => db('bare').insert({ steps: JSON.stringify(list[k]!.steps) })
    const saving = (id: string, k: number) => saveSteps(db, account.id, id, bodies[k]!)
    /** Milliseconds for each step, all of those at once going through theirs. */
    const timed = async (
      who: string[],
      work: (id: string, k: number) => Promise<unknown>,
      from: number,
      to: number,
    ) => {
      const began = performance.now()
      await Promise.all(
        who.map(async (id) => {
          for (let k = from; k < to; k++) await work(id, k)
        }),
      )
      return (performance.now() - began) / (to - from) / who.length
    }
    const medianOf = async (who: string[], first: number): Promise<{ bare: number; saving: number }> => {
      const rounds: { bare: number; saving: number }[] = []
      for (let from = first; rounds.length < 5; from += EACH)
        rounds.push({
          bare: await timed(who, bare, from, from + EACH),
          saving: await timed(who, saving, from, from + EACH),
        })
      return rounds.sort((a, b) => a.bare / a.saving - b.bare / b.saving)[2]!
    }
    await timed(ids, bare, 0, WARM)
    await timed(ids, saving, 0, WARM)
    const together = await medianOf(ids, WARM)
    const alone = await medianOf(ids.slice(0, 1), WARM + 5 * EACH)
    for (const [who, m] of Object.entries({ 'four at once': together, alone }))
      console.log(
        `${who}: bare insert ${m.bare.toFixed(2)} ms · saving a step ${m.saving.toFixed(2)} ms · ` +
          `${(m.bare / m.saving).toFixed(2)} of its rate (median of five)`,
      )
    expect(together.bare / together.saving).toBeGreaterThanOrEqual(0.5)
  } finally {
    await db.destroy()
    cluster.remove()
  }
})
