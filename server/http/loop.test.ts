import { once } from 'node:events'
import { setTimeout as sleep } from 'node:timers/promises'
import { Worker } from 'node:worker_threads'
import { afterEach, describe, expect, it } from 'vitest'
import { HELD_MS, longTurn, passed, turnOf, watchLoop } from './loop'

let stop = () => {}
afterEach(() => stop())

/** What is told of a turn of the loop in which `turn` is done. */
async function toldOf(turn: () => void): Promise<string[]> {
  const told: string[] = []
  stop()
  stop = watchLoop((event) => told.push(event))
  await sleep(100)
  told.length = 0
  turn()
  await sleep(100)
  return told
}

it('a turn that works long is held, one that only waits is late', async () => {
  const worked = () => {
    const from = passed()
    while (turnOf(from, passed()).cpuMs < 2 * HELD_MS);
  }
  // Where the host of the machine gives much of it to others, not every turn is its own beyond doubt.
  let told: string[] = []
  for (let tries = 0; tries < 30 && !told.includes('loop-held'); tries++) told = await toldOf(worked)
  expect(told).toContain('loop-held')
  const waited = () => void Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0, 2 * HELD_MS)
  told = await toldOf(waited)
  expect(told).toContain('loop-late')
  expect(told).not.toContain('loop-held')
  // What a worker does beside it holds nobody up.
  const spin = `require('node:worker_threads').parentPort.on('message', (flag) => {
    const until = Date.now() + ${4 * HELD_MS}
    while (Date.now() < until);
    Atomics.store(flag, 0, 1)
    Atomics.notify(flag, 0)
  })`
  const worker = new Worker(spin, { eval: true })
  await once(worker, 'online')
  const flag = new Int32Array(new SharedArrayBuffer(4))
  const beside = await toldOf(() => {
    worker.postMessage(flag)
    Atomics.wait(flag, 0, 0, 20 * HELD_MS)
  })
  await worker.terminate()
  expect(beside).toContain('loop-late')
  expect(beside).not.toContain('loop-held')
})

describe('a turn is', () => {
  const turn = (ms: number, cpuMs: number, stolenMs = 0) => longTurn({ ms, cpuMs, stolenMs })
  it('held where its own thread worked long', () => {
    expect([turn(400, 390), turn(400, 260), turn(900, 600, 300)]).toEqual(Array(3).fill('loop-held'))
  })
  it('late where it waited, or where what it worked may have been taken from it', () => {
    expect([turn(400, 240), turn(400, 390, 200), turn(330, 281, 40)]).toEqual(Array(3).fill('loop-late'))
  })
  it('late where it was short of the work that is booked on it', () => expect(turn(310, 900, 70)).toBe('loop-late'))
  it('charged with what was stolen from the processor that lost most', () => {
    const from = { ms: 10, cpuMs: 5, stolenMs: [100, 700, 40] }
    const to = { ms: 410.2, cpuMs: 295.4, stolenMs: [130, 710, 40] }
    expect(turnOf(from, to)).toEqual({ ms: 400, cpuMs: 290, stolenMs: 30 })
    expect(turnOf({ ...from, stolenMs: [] }, { ...to, stolenMs: [] }).stolenMs).toBe(0)
  })
  it('not long at all', () => expect([turn(50, 50), turn(299, 299), turn(76, 544)]).toEqual(Array(3).fill(undefined)))
})
