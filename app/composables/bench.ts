import { useLocalStorage, useSpeechSynthesis, useWakeLock } from '@vueuse/core'
import { onBeforeUnmount, onMounted, ref, watch } from 'vue'

/** How a person likes the bench on this device. */
export const useBenchWays = () =>
  useLocalStorage(
    'weben-bench',
    { stride: 'row' as 'row' | 'bite', aloud: false, rate: 1, click: false, pedal: '' },
    { mergeDefaults: true },
  )

/** Keeps the screen awake while the bench is open, where the browser can; says whether it does. */
export function useAwake() {
  const lock = useWakeLock()
  const hold = () => {
    if (document.visibilityState === 'visible') void lock.request('screen').catch(() => {})
  }
  onMounted(() => {
    if (lock.isSupported.value) hold()
  })
  onBeforeUnmount(() => {
    void lock.release().catch(() => {})
  })
  return lock
}

/** Reads a sentence aloud when it changes, while that is wanted. */
export function useAloud(text: () => string, wanted: () => boolean, rate: () => number) {
  const now = ref('')
  const pace = ref(1)
  const speech = useSpeechSynthesis(now, { rate: pace, lang: 'en' })
  watch([text, wanted, rate], ([says, on, speed]) => {
    if (!speech.isSupported.value) return
    speech.stop()
    if (!on || !says) return
    now.value = says
    pace.value = speed
    speech.speak()
  })
  onBeforeUnmount(() => {
    if (speech.isSupported.value) speech.stop()
  })
  return speech
}

/** A short click, for those who want to hear that a press was taken. */
export function useClick(wanted: () => boolean) {
  let context: AudioContext | null = null
  onBeforeUnmount(() => {
    void context?.close()
  })
  return () => {
    if (!wanted()) return
    context ??= new AudioContext()
    const tone = context.createOscillator()
    const loud = context.createGain()
    tone.frequency.value = 660
    loud.gain.setValueAtTime(0.08, context.currentTime)
    loud.gain.exponentialRampToValueAtTime(0.0001, context.currentTime + 0.06)
    tone.connect(loud).connect(context.destination)
    tone.start()
    tone.stop(context.currentTime + 0.07)
  }
}
