<script setup lang="ts">
import { useNow } from '@vueuse/core'
import type { Timer } from '#core/making/chore'
import { momentWords } from '../composables/days'

/** What is waited for, and how long still. */
defineProps<{ timers: readonly Timer[] }>()
const now = useNow({ interval: 1000 })
const leftWords = (until: number): string => {
  const s = Math.max(0, Math.ceil((until - now.value.getTime()) / 1000))
  return s >= 3600
    ? `${Math.floor(s / 3600)} h ${Math.floor((s % 3600) / 60)} min`
    : `${Math.floor(s / 60)}:${String(s % 60).padStart(2, '0')}`
}
</script>

<template>
  <ul v-if="timers.length" class="timers" data-test="timers">
    <li v-for="t in timers" :key="t.task + t.says" :class="{ over: t.until <= now.getTime() }">
      <template v-if="t.until > now.getTime()"
        ><b class="figure">{{ leftWords(t.until) }}</b
        ><span>{{ t.says }}: {{ t.title.toLowerCase() }}, until {{ momentWords(t.until) }}</span></template
      >
      <template v-else
        ><b class="figure" aria-hidden="true">✓</b><span>It has been long enough {{ t.says }}.</span></template
      >
    </li>
  </ul>
</template>

<style scoped>
.timers {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 8px;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  align-items: baseline;
  padding: 10px 14px;
  border-radius: var(--round-in);
  background: var(--marigold-wash);
  color: var(--marigold);
}
.over {
  background: var(--verdigris-wash);
  color: var(--verdigris);
}
.figure {
  font-size: 24px;
  color: inherit;
}
</style>
