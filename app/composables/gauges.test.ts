import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { GaugeKey } from '#core/fit/gauge'
import type { Gauge } from '#core/piece/schema'
import type { ShelfInput, ShelfItem } from '#core/shelf/shelf'
import { useShelf } from '../stores/shelf'
import { useKeptGauges } from './gauges'

const KEY: GaugeKey = { technique: 'peyote', spec: 'cylinder-11', thread: 'gel-6' }
const gauge = (...lengths: number[]): Gauge =>
  ({
    ...KEY,
    swatches: lengths.map((lengthMm) => ({ rows: 20, lengthMm, columns: 0, widthMm: 0, from: '' })),
  }) as Gauge

/** A server that answers when it is let. */
function slowShelf() {
  const there: ShelfItem[] = []
  const waiting: (() => void)[] = []
  const slowly = <T>(work: () => T) => new Promise<T>((done) => waiting.push(() => done(work())))
  const shelf = useShelf()
  const show = () => {
    shelf.items = [...there]
  }
  vi.spyOn(shelf, 'fetch').mockResolvedValue()
  vi.spyOn(shelf, 'keep').mockImplementation((values: readonly ShelfInput[]) =>
    slowly(() => {
      there.push({ id: `g${there.length}`, value: values[0] as ShelfItem['value'] } as ShelfItem)
      show()
      return [...there]
    }),
  )
  vi.spyOn(shelf, 'change').mockImplementation((item, value) =>
    slowly(() => {
      const at = there.findIndex(({ id }) => id === item.id)
      // What was sent before must be what is there.
      expect(there[at]!.value).toEqual(item.value)
      there[at] = { ...there[at]!, value } as ShelfItem
      show()
    }),
  )
  const settle = async () => {
    for (let k = 0; k < 20; k++) {
      waiting.shift()?.()
      await new Promise((done) => setTimeout(done))
    }
  }
  const swatches = () => there.map(({ value }) => (value as { gauge: Gauge }).gauge.swatches.map((s) => s.lengthMm))
  return { settle, swatches, shelf }
}

beforeEach(() => setActivePinia(createPinia()))

describe('a gauge that is kept for all pieces', () => {
  it('is the last that was said, however quickly one follows the other', async () => {
    const { settle, swatches } = slowShelf()
    const { keepGauge } = useKeptGauges()
    const all = [keepGauge([gauge(33.6)], KEY), keepGauge([gauge(33.6, 40)], KEY), keepGauge([gauge(33.6)], KEY)]
    await settle()
    await Promise.all(all)
    expect(swatches()).toEqual([[33.6]])
  })
  it('goes on after one that could not be kept, which is told', async () => {
    const { settle, swatches, shelf } = slowShelf()
    const { keepGauge } = useKeptGauges()
    vi.spyOn(shelf, 'keep').mockRejectedValueOnce(new Error('away'))
    await expect(keepGauge([gauge(30)], KEY)).rejects.toThrow('away')
    const next = keepGauge([gauge(31)], KEY)
    await settle()
    await next
    expect(swatches()).toEqual([[31]])
  })
})
