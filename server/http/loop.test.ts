import { once } from 'node:events'
import { setTimeout as sleep } from 'node:timers/promises'
import { Worker } from 'node:worker_threads'
import { afterEach, expect, it } from 'vitest'
import { HELD_MS, watchLoop } from './loop'

let stop = () => {}
afterEach(() => stop())

/** What is told of a turn of the loop in which `turn` is done. */
async function toldOf(turn: () => void): Promise<string[]> {
  const told: string[] = []
  stop = watchLoop((event) => told.push(event))
  await sleep(100)
  told.length = 0
  turn()
  await sleep(100)
  return told
}

it('a turn that works long is held, one that only waits is late', async () => {
  const worked = () => {
    const from = process.cpuUsage()
    while (process.cpuUsage(from).user + process.cpuUsage(from).system < 1500 * HELD_MS);
  }
  expect(await toldOf(worked)).toContain('loop-held')
  stop()
  const waited = () => void Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0, 2 * HELD_MS)
  const told = await toldOf(waited)
  expect(told).toContain('loop-late')
  expect(told).not.toContain('loop-held')
  stop()
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
