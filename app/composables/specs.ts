import { computed, onMounted } from 'vue'
import { BEAD_SPECS, CORD_SPECS, findSpec, requireSpec } from '#core/bead/spec'
import { useShelf } from '../stores/shelf'

/**
 * Sizes to choose from; of cords where the work is plain cord: those measured by oneself first (of the shelf, and the
 * given ones in use), then the catalogue.
 */
export function useSpecs(inUse: () => readonly string[], cords: () => boolean = () => false) {
  const shelf = useShelf()
  onMounted(() => {
    shelf.fetch().catch(() => {
      /* without the shelf the catalogue is still there */
    })
  })
  return computed(() => {
    if (cords()) return CORD_SPECS.map((s) => ({ value: s.id, title: s.name }))
    const own = [...new Set([...shelf.specs.map((i) => i.value.spec), ...inUse()])].filter(
      (id) => id.startsWith('own/') && findSpec(id),
    )
    return [...own.map(requireSpec), ...BEAD_SPECS].map((s) => ({
      value: s.id,
      title: `${s.name} · ${s.d} × ${s.l} mm`,
    }))
  })
}
