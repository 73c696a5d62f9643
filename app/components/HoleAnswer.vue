<script setup lang="ts">
import { requireSpec } from '#core/bead/spec'
import type { Supply } from '#core/piece/schema'
import { requireNeedle, requireThread } from '#core/thread/catalogue'
import type { Help, SpecHoleCheck } from '#core/supply/thread'
import { showNumber } from '#core/units/length'
import { wireDiameterMm } from '#core/units/wire-gauge'

/**
 * Will it go through? The hole drawn to scale with what passes it, the figures, and what would help: one press takes
 * the advice.
 */
const props = defineProps<{ check: SpecHoleCheck; supply: Supply; letters: readonly string[] }>()
const emit = defineEmits<{ help: [help: Help] }>()
const WHERE = {
  work: { title: '', says: '' },
  ends: { title: 'at the ends', says: 'where the closure is sewn on' },
  strands: { title: 'where strands hang', says: 'with the strands that hang from it' },
} as const
const VERDICT = { easy: 'Goes through easily', tight: 'Tight', no: 'Will not go through' } as const
/** How thick what lies in the hole is, mm. */
const thickOf = ({ wireMm }: SpecHoleCheck) =>
  wireMm === undefined ? requireThread(props.supply.thread).diameterMm : wireMm
/** How far from the middle of the drawn hole it lies: wires against its wall, one alone in the middle. */
const asideOf = (check: SpecHoleCheck) =>
  check.wireMm === undefined ? 20 : check.passes === 1 ? 0 : Math.max(0, 34 * (1 - check.wireMm / check.holeMm))
const helpWords = (h: Help) => {
  switch (h.kind) {
    case 'needle':
      return `Needle ${requireNeedle(h.id).name}`
    case 'thread':
      return requireThread(h.id).name
    case 'wire':
      return `Wire of ${h.gauge} gauge (${showNumber(wireDiameterMm(h.gauge), 2)} mm)`
    case 'single':
      return 'Single thread'
    case 'fewer passes':
      return 'No extra passes'
    case 'larger hole':
      return 'A bead with a larger hole, or another path'
  }
}
</script>

<template>
  <div class="hole" :class="check.verdict">
    <svg viewBox="-50 -50 100 100" width="66" height="66" aria-hidden="true">
      <circle r="46" class="glass" />
      <circle :r="34" class="opening" />
      <circle
        v-for="k in check.wireMm === undefined ? check.passes - 1 : check.passes"
        :key="k"
        :r="34 * (thickOf(check) / check.holeMm)"
        :cx="asideOf(check) * Math.cos(k * 2.1)"
        :cy="asideOf(check) * Math.sin(k * 2.1)"
        class="thread"
      />
      <ellipse
        v-if="check.wireMm === undefined"
        :rx="(34 * requireNeedle(supply.needle).eyeMm) / check.holeMm"
        :ry="(12 * requireNeedle(supply.needle).eyeMm) / check.holeMm"
        class="needle"
      />
    </svg>
    <div>
      <b
        >{{ VERDICT[check.verdict]
        }}<template v-if="WHERE[check.where].title">, {{ WHERE[check.where].title }}</template></b
      >
      <p>
        <b v-if="letters.length" class="letters">{{ letters.join(' ') }}</b> {{ requireSpec(check.spec).name }}, hole
        {{ showNumber(check.holeMm, 2) }} mm, passed {{ check.passes === 1 ? 'once' : `${check.passes} times`
        }}{{ WHERE[check.where].says && ` ${WHERE[check.where].says}`
        }}<template v-if="check.at"> ({{ check.where === 'ends' ? 'as at' : 'most at' }} {{ check.at.says }})</template
        >: needs {{ showNumber(check.leastMm, 2)
        }}{{ check.surelyMm - check.leastMm > 0.005 ? ` to ${showNumber(check.surelyMm, 2)}` : '' }} mm.
      </p>
      <p v-if="check.helps.length" class="helps">
        Would help:
        <template v-for="(h, k) in check.helps" :key="k"
          ><span v-if="h.kind === 'larger hole'">{{ helpWords(h) }}; cull the beads with the smallest holes.</span
          ><span v-else-if="h.kind === 'wire'">{{ helpWords(h) }} goes through easily.</span
          ><button v-else type="button" class="link" @click="emit('help', h)">
            {{ helpWords(h) }}<span class="quiet"> ({{ h.verdict }})</span>
          </button></template
        >
      </p>
    </div>
  </div>
</template>

<style scoped>
.hole {
  display: grid;
  grid-template-columns: 66px 1fr;
  gap: 14px;
  align-items: center;
  background: var(--verdigris-wash);
  color: var(--verdigris);
  padding: 12px 14px;
  border-radius: var(--round);
  font-size: 14.5px;
}
.hole b {
  font: 700 17px/1.2 var(--title);
}
.hole .letters {
  font: 700 14.5px/1.2 var(--text);
}
.tight,
.no {
  background: var(--marigold-wash);
  color: var(--marigold);
}
.glass {
  fill: var(--mat);
  stroke: currentColor;
  stroke-width: 3;
}
.opening {
  fill: var(--paper);
}
.thread {
  fill: currentColor;
  opacity: 0.8;
}
.needle {
  fill: none;
  stroke: var(--ink);
  stroke-width: 3;
}
.helps {
  display: flex;
  gap: 4px 14px;
  flex-wrap: wrap;
  align-items: center;
}
.helps .link {
  min-height: 32px;
}
.helps .quiet {
  color: inherit;
}
</style>
