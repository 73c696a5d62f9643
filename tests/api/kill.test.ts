import { randomBytes } from 'node:crypto'
import { expect, it } from 'vitest'
import { pieceToBody } from '#core/piece/codec'
import { setStep } from '#core/piece/edit'
import { startApplication, type Application } from '../../launcher/application'
import { freePort, throwAwayCluster, type ThrowAway } from '../../launcher/postgres'
import { prepareDatabase } from '../../launcher/start'
import { piece } from '../fixture/piece'
import { person } from './client'

/** How often it is killed; more by hand. */
const KILLS = Number(process.env.WEBEN_KILLS ?? 8)
const WEAVERS = 4

const sleep = (ms: number) => new Promise((done) => setTimeout(done, ms))
const gone = async (pid: number) => {
  for (;;) {
    try {
      process.kill(pid, 0)
    } catch {
      return
    }
    await sleep(10)
  }
}

it(
  `a server killed ${KILLS} times in the middle of saving, every fourth time with its database, loses nothing`,
  async () => {
    const secret = randomBytes(32).toString('hex')
    const port = await freePort()
    let cluster: ThrowAway = await throwAwayCluster({ durable: true })
    let application: Application | null = null
    const start = async () => {
      application = await startApplication({
        root: process.cwd(),
        port,
        databaseUrl: cluster.url,
        secret,
        demo: false,
      })
    }
    let working = true
    try {
      await prepareDatabase(cluster.url, false)
      await start()
      const address = application!.address
      const weavers: { who: Awaited<ReturnType<typeof person>>; id: string; making: string; revision: number }[] = []
      for (let k = 0; k < WEAVERS; k++) {
        const who = await person(address)
        const { id } = (await who.call<{ id: string }>('POST', 'piece', pieceToBody(piece()))).body
        const { making } = (
          await who.call<{ making: { id: string } }>('POST', `piece/${id}/making`, {
            as: 'begin-kill-1',
            revision: 0,
            head: {},
          })
        ).body
        weavers.push({ who, id, making: making.id, revision: 0 })
      }
      /** A press at the bench for each revision, sent until it is acknowledged. */
      const press = async ({ who, id, making }: (typeof weavers)[number], number: number): Promise<void> => {
        const event = { do: 'at', task: `band/1/${number}`, bite: 0 }
        while (working) {
          try {
            const events = [{ id: `press-${number}-kill`, at: number, event }]
            const { status } = await who.call('POST', `piece/${id}/making/${making}/event`, {
              after: 0,
              now: 0,
              events,
            })
            if (status === 200) return
            expect(status).toBe(500)
          } catch (error) {
            if (!(error instanceof TypeError || error instanceof SyntaxError)) throw error
            await sleep(20)
          }
        }
      }
      /** Renames its piece again and again, one revision each; what got no answer is sent once more as it was. */
      const work = async (weaver: (typeof weavers)[number]): Promise<void> => {
        while (working) {
          const { revision } = weaver
          if (revision > 0) await press(weaver, revision)
          const now = { ...piece(), name: revision === 0 ? piece().name : `Name ${revision}` }
          const transaction = {
            id: `${weaver.id.slice(0, 8)}-${revision + 1}`,
            label: 'x',
            steps: [setStep(now, ['name'], `Name ${revision + 1}`)],
          }
          try {
            const { status, body } = await weaver.who.call<{ revision: number; error?: { data: unknown } }>(
              'POST',
              `piece/${weaver.id}/step`,
              { base: revision, transactions: [transaction] },
            )
            const own = (body.error?.data as { missing?: { id: string }[] } | undefined)?.missing?.[0]?.id
            // It had been stored, and the answer was lost.
            const stored = status === 409 && own === transaction.id
            if (status === 200 || stored) weaver.revision++
            else expect([status, body.error?.code]).toEqual([500, 'fault'])
          } catch (error) {
            if (!(error instanceof TypeError || error instanceof SyntaxError)) throw error
            await sleep(20)
          }
        }
      }
      const all = Promise.all(weavers.map(work))
      for (let kill = 0; kill < KILLS; kill++) {
        await sleep(30 + Math.random() * 250)
        const acknowledged = weavers.map((w) => w.revision)
        application!.process.kill('SIGKILL')
        if (kill % 4 === 3) {
          process.kill(cluster.pid, 'SIGKILL')
          await gone(cluster.pid)
          cluster = await cluster.again()
        }
        await start()
        for (const [k, { who, id }] of weavers.entries()) {
          const opened = (await who.call<{ revision: number; piece: { name: string } }>('GET', `piece/${id}`)).body
          expect(opened.revision).toBeGreaterThanOrEqual(acknowledged[k]!)
          if (opened.revision > 0) expect(opened.piece.name).toBe(`Name ${opened.revision}`)
        }
      }
      working = false
      await all
      for (const { who, id, making, revision } of weavers) {
        const { events } = (
          await who.call<{ events: { id: string }[] }>('GET', `piece/${id}/making/${making}?after=0`)
        ).body
        // Every press that was acknowledged, once; the last one may have been on its way.
        const pressed = new Set(events.map((e) => e.id))
        expect(pressed.size).toBe(events.length)
        for (let n = 1; n < revision; n++) expect(pressed).toContain(`press-${n}-kill`)
        expect(revision).toBeGreaterThan(KILLS)
        expect((await who.call<{ revision: number }>('GET', `piece/${id}`)).body.revision).toBe(revision)
      }
    } finally {
      working = false
      await (application as Application | null)?.stop()
      cluster.remove()
    }
  },
  60_000 + KILLS * 10_000,
)
