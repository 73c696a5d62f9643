<script setup lang="ts">
import { computed } from 'vue'
import { marksOf, type GlyphId } from '#core/bead/glyph'

/** A glyph as SVG elements in a unit square, for use inside an svg. */
const props = defineProps<{ glyph: GlyphId; ink: string }>()
const marks = computed(() => marksOf(props.glyph))
const points = (list: readonly (readonly [number, number])[]) => list.map((p) => p.join(',')).join(' ')
</script>

<template>
  <g>
    <template v-for="(mark, k) in marks" :key="k">
      <circle v-if="mark.kind === 'disc'" :cx="mark.x" :cy="mark.y" :r="mark.r" :fill="ink" />
      <circle
        v-else-if="mark.kind === 'ring'"
        :cx="mark.x"
        :cy="mark.y"
        :r="mark.r"
        fill="none"
        :stroke="ink"
        :stroke-width="mark.w"
      />
      <polyline
        v-else-if="mark.kind === 'stroke'"
        :points="points(mark.points)"
        fill="none"
        :stroke="ink"
        :stroke-width="mark.w"
        stroke-linecap="round"
        stroke-linejoin="round"
      />
      <polygon v-else :points="points(mark.points)" :fill="ink" />
    </template>
  </g>
</template>
