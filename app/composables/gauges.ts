import { sameGauge, type GaugeKey } from '#core/fit/gauge'
import type { Gauge } from '#core/piece/schema'
import { useShelf } from '../stores/shelf'

/** Keeps a gauge for all pieces: the one of its stitch, bead and thread is put in place of what was kept before. */
export function useKeptGauges() {
  const shelf = useShelf()
  async function keepGauge(gauges: readonly Gauge[], key: GaugeKey): Promise<void> {
    const mine = gauges.find((g) => sameGauge(g, key))
    await shelf.fetch()
    const kept = shelf.gauges.find((g) => sameGauge(g.value.gauge, key))
    if (mine && kept) await shelf.change(kept, { kind: 'gauge', gauge: mine })
    else if (mine) await shelf.keep([{ kind: 'gauge', gauge: mine }])
    else if (kept) await shelf.takeOff(kept.id)
  }
  return { keepGauge }
}
