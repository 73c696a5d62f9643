import { useLocalStorage } from '@vueuse/core'
import { computed } from 'vue'
import { CARD, PLAIN_PX_PER_MM } from '#core/units/screen'

/**
 * How large a millimetre is on this screen, measured with a bank card; kept on this device, since it belongs to its
 * screen.
 */
export function useScreen() {
  const cardPx = useLocalStorage<number>('weben-card-px', 0)
  const measured = computed(() => cardPx.value > 0)
  const pxPerMm = computed(() => (measured.value ? cardPx.value / CARD.widthMm : PLAIN_PX_PER_MM))
  return { cardPx, measured, pxPerMm }
}
