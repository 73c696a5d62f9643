import { onBeforeUnmount, onMounted, ref, type Ref } from 'vue'

/** Radians in a millisecond: a whole turn in about ten seconds. */
const SPEED = 0.0006

/** A view that turns by itself while `turning` is on; `turn` is its angle, radians. */
export function useTurning(start: number): { readonly turn: Ref<number>; readonly turning: Ref<boolean> } {
  const turn = ref(start)
  const turning = ref(false)
  let last = 0
  let request = 0
  function spin(now: number) {
    if (turning.value) turn.value += (now - last) * SPEED
    last = now
    request = requestAnimationFrame(spin)
  }
  onMounted(() => {
    request = requestAnimationFrame((now) => {
      last = now
      spin(now)
    })
  })
  onBeforeUnmount(() => cancelAnimationFrame(request))
  return { turn, turning }
}
