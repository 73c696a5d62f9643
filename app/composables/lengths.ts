import { showLength, showLongLength, type LengthUnit } from '#core/units/length'
import { computed } from 'vue'
import { useAccount } from '../stores/account'

/** Lengths in the unit of the person. */
export function useLengths() {
  const store = useAccount()
  const unit = computed<LengthUnit>(() => store.account?.settings.unit ?? 'mm')
  // Figure and unit stay on one line.
  const length = (mm: number, decimals = 0) => showLength(mm, { unit: unit.value, decimals }).replaceAll(' ', '\u00A0')
  const long = (mm: number) => showLongLength(mm, unit.value).replaceAll(' ', '\u00A0')
  return { unit, length, long }
}
