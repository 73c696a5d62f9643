<script setup lang="ts">
import { computed } from 'vue'
import type { Piece } from '#core/piece/piece'
import { needsFor, toolsFor, workplaceOf } from '#core/supply/tools'

/** Findings by number and tools that the work asks for; `made` is how many are made. */
const props = defineProps<{ piece: Piece; made: number }>()
const needs = computed(() => needsFor(props.piece))
const tools = computed(() => toolsFor(props.piece))
const ready = computed(() => props.piece.parts.flatMap((part) => workplaceOf(props.piece, part)?.ready ?? []))
</script>

<template>
  <ul v-if="needs.length" class="needs" aria-label="Findings by number">
    <li v-for="need in needs" :key="need.name">
      <span class="figure">{{ need.count * made }}</span>
      <span
        ><b>{{ need.name }}</b> <span class="quiet">{{ need.says }}</span></span
      >
    </li>
  </ul>
  <h3 id="tools">Tools</h3>
  <ul class="tools" aria-labelledby="tools">
    <li v-for="tool in tools" :key="tool">{{ tool }}</li>
  </ul>
  <template v-if="ready.length">
    <h3 id="ready">Made ready first</h3>
    <ul class="ready" aria-labelledby="ready">
      <li v-for="one in ready" :key="one.text">
        <b class="figure">{{ one.minutes }} min</b> <span>{{ one.text }}</span>
      </li>
    </ul>
  </template>
</template>

<style scoped>
.needs {
  list-style: none;
  margin: 0;
  padding: 0;
}
.needs li {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 16px;
  align-items: center;
  padding: 10px 0;
  border-top: 1px solid var(--line);
}
.needs .figure {
  font-size: 32px;
  min-width: 92px;
}
.tools {
  list-style: none;
  margin: 0;
  padding: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 6px 8px;
}
.ready {
  list-style: none;
  margin: 0;
  padding: 0;
}
.ready li {
  display: grid;
  grid-template-columns: 92px 1fr;
  gap: 16px;
  align-items: baseline;
}
.tools li {
  padding: 3px 12px;
  border: 1px solid var(--line);
  border-radius: 999px;
  font-size: 14.5px;
}
</style>
