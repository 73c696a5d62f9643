<script setup lang="ts">
import { computed, onMounted } from 'vue'
import { fitKindOf, type FitKind } from '#core/wear/kind'
import type { Person } from '#core/shelf/shelf'
import { useLengths } from '../composables/lengths'
import { useShelf } from '../stores/shelf'

/** People whose measures are kept: one press puts the one that is asked for into the piece. */
const props = defineProps<{ kind: FitKind; wearer: string }>()
const emit = defineEmits<{ choose: [person: Person] }>()
const shelf = useShelf()
const { length } = useLengths()
onMounted(() => {
  shelf.fetch().catch(() => {
    /* the fields work without */
  })
})
const measure = computed(() => fitKindOf(props.kind).measure)
</script>

<template>
  <div class="people" role="group" aria-label="People I make for">
    <button
      v-for="p in shelf.people"
      :key="p.id"
      type="button"
      :aria-pressed="p.value.name === wearer"
      :disabled="p.value.measures[measure] === null"
      @click="emit('choose', p.value)"
    >
      <b>{{ p.value.name }}</b><span>{{
        p.value.measures[measure] === null ? 'not measured' : length(p.value.measures[measure]!)
      }}</span>
    </button>
    <NuxtLink to="/people" class="link">{{ shelf.people.length ? 'People' : 'Keep measures of people' }}</NuxtLink>
  </div>
</template>

<style scoped>
.people {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
}
button {
  display: flex;
  gap: 8px;
  align-items: center;
  min-height: 40px;
  padding: 0 12px;
  border: 0;
  border-radius: 20px;
  background: var(--paper);
  color: var(--ink);
  font: 400 14px/1.2 var(--text);
  cursor: pointer;
  box-shadow: inset 0 0 0 1.5px var(--line);
}
button span {
  color: var(--soft);
}
button[aria-pressed='true'] {
  background: var(--dark);
  color: var(--dark-ink);
  box-shadow: none;
}
button[aria-pressed='true'] span {
  color: inherit;
}
button:disabled {
  cursor: default;
  opacity: 0.7;
}
.link {
  min-height: 40px;
  display: inline-flex;
  align-items: center;
  font-size: 14px;
}
</style>
