import { computed, watchEffect } from 'vue'
import { usePreferredDark } from '@vueuse/core'
import { useTheme } from 'vuetify'
import { useAccount } from '../stores/account'

/** Day or evening, as the person chose or as the system has it; kept on the page and in Vuetify alike. */
export function useDayOrEvening() {
  const store = useAccount()
  const prefersDark = usePreferredDark()
  const name = computed<'day' | 'evening'>(() => {
    const chosen = store.account?.settings.theme ?? 'system'
    return chosen === 'system' ? (prefersDark.value ? 'evening' : 'day') : chosen
  })
  return name
}

export function useThemeOnPage() {
  const name = useDayOrEvening()
  const theme = useTheme()
  watchEffect(() => {
    document.documentElement.dataset.theme = name.value
    theme.change(name.value)
  })
}
