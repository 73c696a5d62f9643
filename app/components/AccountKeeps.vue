<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import { saying } from '../composables/saying'
import { useAccount } from '../stores/account'

/** What an account holds: how much of its room, all of it to a file, and back from one. */
const store = useAccount()
const room = ref<{ readonly bytes: number; readonly most: number } | null>(null)
const says = ref('')
const busy = ref(false)
const look = () =>
  saying(
    async () => (room.value = await store.storage()),
    () => {},
  )
onMounted(look)

const mb = (bytes: number) => (bytes < 10_000_000 ? (bytes / 1e6).toFixed(1) : String(Math.round(bytes / 1e6)))
const words = computed(() => {
  if (!room.value) return ''
  const { bytes, most } = room.value
  return `${bytes < 100_000 ? 'Less than 0.1' : mb(bytes)} MB of the ${mb(most)} MB it may hold`
})
const counted = (n: number, one: string, many: string) => `${n} ${n === 1 ? one : many}`

const chosen = ref<HTMLInputElement>()
async function read() {
  const file = chosen.value?.files?.[0]
  if (!file) return
  busy.value = true
  says.value = ''
  await saying(
    async () => {
      const { pieces, shelf } = await store.readArchive(file)
      says.value =
        `Read: ${counted(pieces, 'piece', 'pieces')}, and ${counted(shelf, 'thing', 'things')} of the box, people ` +
        'and stamps.'
    },
    (text) => {
      says.value = text
    },
  )
  chosen.value!.value = ''
  busy.value = false
  await look()
}
</script>

<template>
  <section aria-labelledby="keeps">
    <h2 id="keeps">What Weben keeps for you</h2>
    <p v-if="room">
      <progress :value="room.bytes" :max="room.most" aria-hidden="true" />
      {{ words }}
    </p>
    <p class="soft">
      One file takes all of it along: every piece as it stands now, the box, people, gauges and stamps. It can be read
      back into an account that is still empty, here or on another Weben. Earlier states of pieces are not in it.
    </p>
    <div class="acts">
      <a class="button" href="/api/account/archive" download>Save everything to a file</a>
      <label class="button" :class="{ busy }">
        {{ busy ? 'Reading…' : 'Read such a file' }}
        <input ref="chosen" type="file" class="hidden" accept=".gz,application/gzip" :disabled="busy" @change="read" />
      </label>
    </div>
    <p v-if="says" class="says" role="status">{{ says }}</p>
  </section>
</template>

<style scoped src="./account-section.css" />

<style scoped>
progress {
  display: block;
  width: min(320px, 100%);
  height: 8px;
  margin-bottom: 6px;
  appearance: none;
  border: 0;
  border-radius: 4px;
  overflow: hidden;
  background: var(--line);
}
progress::-webkit-progress-bar {
  background: var(--line);
}
progress::-webkit-progress-value {
  background: var(--marigold);
}
progress::-moz-progress-bar {
  background: var(--marigold);
}
label.button:focus-within {
  outline: 3px solid var(--marigold);
  outline-offset: 2px;
}
</style>
