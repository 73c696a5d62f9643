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

/** Steps in each of the five rounds. */
const EACH = 60

/** Saving a step against a bare insert of the same bytes, same pool, both durable; median of five rounds. */
test('saving a step against a bare insert', async () => {
  const cluster = await throwAwayCluster({ durable: true })
  const db = connect(cluster.url)
  try {
    await migrate(db)
    const account = await join(db, { signIn: 'Bench', password: 'a long enough word' })
    let now = piece()
    const { id } = await createPiece(db, account.id, now)
    const list = Array.from({ length: 300 }, (_, k) => {
      const steps = [
        ...layingSteps(now.parts[0]!, new Map([[k % 16, 1 + ((k + 1) % 3)]])),
        setStep(now, ['notes'], `note ${k}`),
      ]
      now = valueOf(applySteps(now, steps))
      return { id: `bench-${k}-00`, label: 'edit', steps }
    })
    await db.raw('create table bare (id serial primary key, steps jsonb not null)')
    for (let k = 0; k < 50; k++) await db('bare').insert({ steps: JSON.stringify(list[k]!.steps) })
    const bodies = list.map((t, k) =>
      new TextEncoder().encode(JSON.stringify({ base: k, on: list[k - 1]?.id ?? '', transactions: [t] })),
    )
    const timed = async (work: (k: number) => Promise<unknown>, from: number): Promise<number> => {
      const began = performance.now()
      for (let k = from; k < from + EACH; k++) await work(k)
      return (performance.now() - began) / EACH
    }
    const rounds: { bare: number; saving: number }[] = []
    for (let from = 0; from < list.length; from += EACH) {
      const bare = await timed((k) => db('bare').insert({ steps: JSON.stringify(list[k]!.steps) }), from)
      const saving = await timed((k) => saveSteps(db, account.id, id, bodies[k]!), from)
      rounds.push({ bare, saving })
    }
    const { bare, saving } = rounds.sort((a, b) => a.bare / a.saving - b.bare / b.saving)[
      Math.floor(rounds.length / 2)
    ]!
    console.log(
      `bare insert ${bare.toFixed(2)} ms · saving a step ${saving.toFixed(2)} ms · ${(bare / saving).toFixed(2)} ` +
        'of its rate (median of five)',
    )
    expect(bare / saving).toBeGreaterThanOrEqual(0.5)
  } finally {
    await db.destroy()
    cluster.remove()
  }
})
