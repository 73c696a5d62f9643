<script setup lang="ts">
import { computed } from 'vue'
import { slotOf, type Disc } from '#core/technique/disc'

/**
 * The disc as it lies in the hand: numbered slots, four dots, strands with their bobbin numbers and the bead that
 * comes next on each.
 */
const props = defineProps<{
  disc: Disc
  /** Slots as they are labelled on the foam: of the disc as it lay at the start. */
  from: number | null
  to: number | null
  /** Strand that has just moved, or moves next. */
  active: number | null
  /** Colour of the bead that comes next on each strand; empty where none is left. */
  beads: readonly string[]
  /** How far the disc is turned in the hand, degrees clockwise. */
  turn: number
  /** Whether turning is shown as movement. */
  moving: boolean
  says: string
}>()

const R = 150
const at = (slot: number, radius: number) => {
  const angle = ((slot - 0.5) / props.disc.slots) * 2 * Math.PI
  return { x: radius * Math.sin(angle), y: -radius * Math.cos(angle) }
}
const slots = computed(() => Array.from({ length: props.disc.slots }, (_, k) => k + 1))
/** Slots are printed on the foam, so a strand is shown where it lies on it, turned labels or not. */
const printed = (slot: number) => slotOf(slot + props.disc.turned, props.disc.slots)
const strands = computed(() => props.disc.strands.flatMap((s, k) => (s < 0 ? [] : [{ s, slot: printed(k + 1) }])))
const every = computed(() => (props.disc.slots > 40 ? 2 : 1))
const dots = computed(() => [0, 1, 2, 3].map((k) => at((k * props.disc.slots) / 4 + 0.5, R * 0.62)))
</script>

<template>
  <svg viewBox="-230 -230 460 460" class="disc" role="img" :aria-label="says">
    <g :class="{ moving }" :style="{ transform: `rotate(${turn}deg)` }">
      <circle :r="R" class="foam" />
      <g v-for="n in slots" :key="n">
        <line :x1="at(n, R - 12).x" :y1="at(n, R - 12).y" :x2="at(n, R).x" :y2="at(n, R).y" class="slot" />
        <text
          v-if="n % every === 0"
          :transform="`translate(${at(n, R - 27).x} ${at(n, R - 27).y}) rotate(${-turn})`"
          class="number"
          :class="{ here: n === from || n === to }"
        >
          {{ n }}
        </text>
      </g>
      <circle v-for="(d, k) in dots" :key="k" :cx="d.x" :cy="d.y" r="5" class="dot" />
      <path
        v-if="from !== null && to !== null"
        :d="`M${at(from, R - 44).x} ${at(from, R - 44).y} L${at(to, R - 44).x} ${at(to, R - 44).y}`"
        class="way"
      />
      <circle v-if="to !== null" :cx="at(to, R + 8).x" :cy="at(to, R + 8).y" r="8" class="target" />
      <circle r="40" class="hole" />
      <g v-for="t in strands" :key="t.s" :class="{ active: t.s === active }">
        <line
          :x1="at(t.slot, 22).x"
          :y1="at(t.slot, 22).y"
          :x2="at(t.slot, R + 34).x"
          :y2="at(t.slot, R + 34).y"
          class="strand"
        />
        <circle
          v-if="beads[t.s]"
          :cx="at(t.slot, R + 16).x"
          :cy="at(t.slot, R + 16).y"
          r="9"
          :style="{ fill: beads[t.s] }"
          class="bead"
        />
        <circle :cx="at(t.slot, R + 54).x" :cy="at(t.slot, R + 54).y" r="21" class="bobbin" />
        <text :transform="`translate(${at(t.slot, R + 54).x} ${at(t.slot, R + 54).y}) rotate(${-turn})`" class="name">
          {{ t.s + 1 }}
        </text>
      </g>
    </g>
  </svg>
</template>

<style scoped>
.disc {
  width: 100%;
  max-width: 520px;
  aspect-ratio: 1;
  display: block;
}
g {
  transform-box: view-box;
  transform-origin: 0 0;
}
.moving {
  transition: transform 0.5s ease;
}
.foam {
  fill: var(--paper);
  stroke: var(--edge);
  stroke-width: 2;
}
.hole {
  fill: var(--mat);
  stroke: var(--edge);
  stroke-width: 1.5;
}
.slot {
  stroke: var(--edge);
  stroke-width: 2;
}
.number {
  font: 500 15px var(--text);
  fill: var(--soft);
  text-anchor: middle;
  dominant-baseline: central;
}
.number.here {
  font-weight: 800;
  fill: var(--madder);
  font-size: 23px;
}
.dot {
  fill: var(--ink);
}
.strand {
  stroke: var(--ink);
  stroke-width: 3;
}
.bead {
  stroke: rgb(0 0 0 / 35%);
  stroke-width: 1;
}
.bobbin {
  fill: var(--dark);
}
.name {
  font: 700 23px var(--title);
  fill: var(--dark-ink);
  text-anchor: middle;
  dominant-baseline: central;
}
.active .strand {
  stroke: var(--madder);
  stroke-width: 5;
}
.active .bobbin {
  fill: var(--madder);
}
.active .name {
  fill: var(--madder-ink);
}
.way {
  stroke: var(--madder);
  stroke-width: 3;
  stroke-dasharray: 7 6;
  fill: none;
}
.target {
  fill: none;
  stroke: var(--madder);
  stroke-width: 3;
}
</style>
