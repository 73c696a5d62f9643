<script setup lang="ts">
import { computed } from 'vue'
import type { Technique } from '#core/technique/technique'
import { sampleOf, sampleTray } from '#core/begin/begin'
import { byMaking } from '#core/technique/making'
import { TECHNIQUES } from '#core/technique/registry'
import PartPicture from './PartPicture.vue'

/** Every stitch as a small piece of it in beads, grouped by how it is made. */
const props = defineProps<{ modelValue: string; spec: string }>()
defineEmits<{ 'update:modelValue': [technique: string] }>()
/** Beads for what is beaded and cords for what is braided plain, whichever is chosen now. */
const specFor = (t: Technique) => (t.material.takes(props.spec) ? props.spec : t.material.usualSpec)
const groups = computed(() =>
  byMaking(TECHNIQUES, (t) => t.id).map((g) => ({
    ...g.making,
    stitches: g.things.map((t) => ({
      id: t.id,
      name: t.name,
      summary: t.summary,
      part: sampleOf(t.id, specFor(t)),
      tray: sampleTray(t.id, specFor(t)),
    })),
  })),
)
</script>

<template>
  <div class="stitches" role="radiogroup" aria-label="Stitch">
    <template v-for="g in groups" :key="g.id">
      <h3 class="quiet">{{ g.title }}</h3>
      <button
        v-for="t in g.stitches"
        :key="t.id"
        type="button"
        role="radio"
        :aria-checked="modelValue === t.id"
        :title="t.summary"
        @click="$emit('update:modelValue', t.id)"
      >
        <PartPicture :part="t.part" :tray="t.tray" class="sample" close /><b>{{ t.name }}</b>
      </button>
    </template>
  </div>
</template>

<style scoped>
.stitches {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
  gap: 8px;
}
h3 {
  grid-column: 1 / -1;
  font-weight: 500;
  margin-top: 2px;
}
button {
  display: grid;
  gap: 6px;
  padding: 5px 5px 8px;
  border: 0;
  border-radius: 13px;
  background: var(--paper);
  color: var(--ink);
  font: inherit;
  text-align: start;
  cursor: pointer;
  box-shadow: inset 0 0 0 1.5px var(--line);
}
button:hover {
  box-shadow: inset 0 0 0 1.5px var(--edge);
}
b {
  font: 650 14px/1.2 var(--text);
  padding: 0 6px;
}
.sample {
  height: 52px;
  border-radius: 9px;
}
[aria-checked='true'] {
  background: var(--dark);
  color: var(--dark-ink);
  box-shadow: none;
}
</style>
