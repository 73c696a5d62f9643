<script setup lang="ts">
import { computed } from 'vue'
import type { ChoreTask, Task } from '#core/making/agenda'
import { titleOf } from '#core/making/say'

/** A step that lays no beads: what is done, what of it is ticked off, and what to take care of. */
const props = defineProps<{
  task: ChoreTask
  /** Things that are ticked off. */
  ticked: ReadonlyMap<string, number>
  next: Task | null
  copies: number
}>()
const emit = defineEmits<{ tick: [items: string[], done: boolean] }>()
const chore = computed(() => props.task.chore)
</script>

<template>
  <div class="chore">
    <p class="which">
      <strong>{{ chore.title }}</strong>
      <span class="of"
        ><template v-if="copies > 1 && chore.kind !== 'prepare'">{{ task.copy }} of {{ copies }} · </template
        ><template v-if="chore.minutes > 0">about {{ chore.minutes }} min</template></span
      >
    </p>
    <p v-for="text in chore.says" :key="text" class="says">{{ text }}</p>
    <ul v-if="chore.items.length" class="items">
      <li v-for="one in chore.items" :key="one.id">
        <label :class="{ done: ticked.has(one.id) }"
          ><input
            type="checkbox"
            :checked="ticked.has(one.id)"
            @change="(e) => emit('tick', [one.id], (e.target as HTMLInputElement).checked)"
          />
          <span>{{ one.text }}</span><span v-if="one.minutes" class="minutes">{{ one.minutes }} min</span></label
        >
      </li>
    </ul>
    <p v-for="text in chore.cautions" :key="text" class="caution"><b>Take care.</b> {{ text }}</p>
    <slot />
    <p v-if="next" class="then">Then {{ titleOf(next).charAt(0).toLowerCase() + titleOf(next).slice(1) }}</p>
  </div>
</template>

<style scoped src="./bench-step.css" />
<style scoped>
.chore {
  display: grid;
  gap: clamp(10px, 1.8vh, 20px);
  align-content: start;
  min-width: 0;
}
.says {
  font-size: clamp(19px, 2vw, 26px);
  line-height: 1.35;
  max-width: 38em;
}
.items {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 8px;
}
.items label {
  display: flex;
  gap: 14px;
  align-items: center;
  min-height: 48px;
  padding: 6px 16px;
  border-radius: 14px;
  background: var(--paper);
  font-size: clamp(17px, 1.7vw, 21px);
  cursor: pointer;
}
.minutes {
  margin-left: auto;
  white-space: nowrap;
  color: var(--soft);
  font-size: 16px;
}
.items .done {
  color: var(--soft);
  text-decoration: line-through;
}
input {
  flex: none;
  width: 28px;
  height: 28px;
  accent-color: var(--madder);
}
.caution {
  padding: 10px 16px;
  border-radius: 12px;
  background: var(--marigold-wash);
  color: var(--marigold);
  max-width: 46em;
}
</style>
