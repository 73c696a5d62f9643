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

/** Saving a step against a bare insert of the same bytes through the same pool, both durable. */
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
    const began = performance.now()
    for (const t of list) await db('bare').insert({ steps: JSON.stringify(t.steps) })
    const bare = performance.now() - began
    const then = performance.now()
    for (const [k, t] of list.entries())
      await saveSteps(db, account.id, id, { base: k, on: list[k - 1]?.id ?? '' }, [t])
    const saving = performance.now() - then
    console.log(
      `bare insert ${(bare / list.length).toFixed(2)} ms · saving a step ${(saving / list.length).toFixed(2)} ` +
        `ms · ${(bare / saving).toFixed(2)} of its rate`,
    )
    expect(bare / saving).toBeGreaterThanOrEqual(0.5)
  } finally {
    await db.destroy()
    cluster.remove()
  }
})
