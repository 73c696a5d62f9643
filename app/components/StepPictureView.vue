<script setup lang="ts">
import { computed } from 'vue'
import type { TrayBead } from '#core/bead/bead'
import { beadOutline, beadTransform } from '#core/picture/outline'
import type { Part } from '#core/piece/piece'
import { numbersIn } from '#core/tally/strips'
import type { StepPicture } from '#core/technique/step-picture'

/** One step as it looks: what is there pale, what is new bright, the way of the thread, the hole that is entered. */
const props = defineProps<{ part: Part; picture: StepPicture; tray: ReadonlyMap<number, TrayBead> }>()
const EDGE_MM = 1.6
const box = computed(() => {
  const { left, top, right, bottom } = props.picture
  return {
    view: `${left - EDGE_MM} ${top - EDGE_MM} ${right - left + 2 * EDGE_MM} ${bottom - top + 2 * EDGE_MM}`,
    ratio: `${right - left + 2 * EDGE_MM} / ${bottom - top + 2 * EDGE_MM}`,
  }
})
const beads = computed(() => {
  const numbers = numbersIn(props.part, props.picture)
  const rank = { made: 0, passed: 1, new: 2 }
  return props.picture.beads
    .map((bead, k) => ({
      ...bead,
      d: beadOutline(bead.spec),
      transform: beadTransform(bead),
      fill: props.tray.get(numbers[k]!)?.colour ?? '#c9c0b2',
    }))
    .sort((a, b) => rank[a.look] - rank[b.look])
})
const way = computed(() => props.picture.way.map(({ x, y }) => `${x.toFixed(2)},${y.toFixed(2)}`).join(' '))
</script>

<template>
  <svg class="step-picture" :viewBox="box.view" :style="{ aspectRatio: box.ratio }" aria-hidden="true">
    <polyline
      v-for="(line, k) in picture.lines"
      :key="`l${k}`"
      :points="line.points.map(({ x, y }) => `${x.toFixed(2)},${y.toFixed(2)}`).join(' ')"
      :stroke-width="line.thickMm"
      class="line"
    />
    <circle v-for="ring in picture.rings" :key="`r${ring.node}`" :cx="ring.x" :cy="ring.y" :r="ring.r" class="ring" />
    <path
      v-for="bead in beads"
      :key="bead.node"
      :d="bead.d"
      :transform="bead.transform"
      :fill="bead.fill"
      :class="bead.look"
    />
    <polyline v-if="way" :points="way" class="way" />
    <circle v-if="picture.enters" :cx="picture.enters.x" :cy="picture.enters.y" r="0.95" class="enters" />
    <g
      v-if="picture.needle"
      :transform="`translate(${picture.needle.x} ${picture.needle.y}) rotate(${picture.needle.turnDegrees})`"
    >
      <path d="M0 0L0 -0.55L1.7 0L0 0.55Z" class="needle" />
    </g>
  </svg>
</template>

<style scoped>
.step-picture {
  display: block;
  width: 100%;
  height: 100%;
  overflow: visible;
}
.line {
  fill: none;
  stroke: var(--edge);
  stroke-linecap: round;
  opacity: 0.55;
}
.ring {
  fill: none;
  stroke: var(--edge);
  stroke-width: 0.5;
}
path {
  stroke: var(--ink);
  stroke-width: 0.12;
  vector-effect: none;
}
.made {
  opacity: 0.36;
}
.passed {
  opacity: 0.75;
  stroke: var(--madder);
  stroke-width: 0.22;
}
.new {
  stroke-width: 0.18;
}
.way {
  fill: none;
  stroke: var(--madder);
  stroke-width: 0.3;
  stroke-linejoin: round;
  stroke-linecap: round;
}
.enters {
  fill: none;
  stroke: var(--madder);
  stroke-width: 0.26;
}
.needle {
  fill: var(--madder);
  stroke: var(--paper);
  stroke-width: 0.14;
}
</style>
