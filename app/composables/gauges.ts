import { sameGauge, type GaugeKey } from '#core/fit/gauge'
import type { Gauge } from '#core/piece/schema'
import { useShelf } from '../stores/shelf'

/** What is being kept: the next waits for it, since each is put in the place of what was there before. */
let keeping: Promise<void> = Promise.resolve()

/** Keeps a gauge for all pieces: the one of its stitch, bead and thread is put in place of what was kept before. */
export function useKeptGauges() {
  const shelf = useShelf()
  async function putInPlace(gauges: readonly Gauge[], key: GaugeKey): Promise<void> {
    const mine = gauges.find((g) => sameGauge(g, key))
    await shelf.fetch()
    const kept = shelf.gauges.find((g) => sameGauge(g.value.gauge, key))
    if (mine && kept) await shelf.change(kept, { kind: 'gauge', gauge: mine })
    else if (mine) await shelf.keep([{ kind: 'gauge', gauge: mine }])
    else if (kept) await shelf.takeOff(kept.id)
  }
  function keepGauge(gauges: readonly Gauge[], key: GaugeKey): Promise<void> {
    const own = keeping.then(() => putInPlace(gauges, key))
    keeping = own.catch(() => undefined)
    return own
  }
  return { keepGauge }
}
