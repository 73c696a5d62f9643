<script setup lang="ts">
import { computed } from 'vue'
import { fitBracelet } from '#core/fit/bracelet'
import { FEEL_WORDS, fitsWell } from '#core/fit/says'
import type { Part, Piece } from '#core/piece/piece'
import { useLengths } from '../composables/lengths'

/** Will it close? The answer as a sentence, with the figures in it. */
const props = defineProps<{ piece: Piece, part: Part }>()
const { length } = useLengths()
const fit = computed(() => fitBracelet(props.piece.fit, props.part, undefined, props.piece.tray))
const spread = computed(() => (fit.value.insideMm.most - fit.value.insideMm.least) / 2)
/** The gauge runs from the bare wrist to 40 mm of room. */
const onGauge = (mm: number) => `${Math.max(0, Math.min(100, (mm - props.piece.fit.wristMm + 10) / 50 * 100))}%`
</script>

<template>
  <div class="answer" :class="{ wants: !fitsWell(fit.feel) }">
    <strong>{{ FEEL_WORDS[fit.feel] }}</strong>
    <div class="gauge" aria-hidden="true">
      <span class="span" :style="{ left: onGauge(fit.insideMm.least), right: `calc(100% - ${onGauge(fit.insideMm.most)})` }" />
      <span class="at" :style="{ left: onGauge(fit.insideMm.nominal) }" />
      <span class="wanted" :style="{ left: onGauge(fit.wantedMm) }" />
    </div>
    <p>
      {{ part.times }} {{ part.times === 1 ? 'repeat' : 'repeats' }} and ends = {{ length(fit.beadworkMm.nominal) }} of beadwork. Closes at
      <b>{{ length(fit.insideMm.nominal) }}</b>&nbsp;±&nbsp;{{ length(spread) }}; the wrist takes {{ length(fit.wantedMm) }}.
    </p>
  </div>
</template>

<style scoped>
.answer { background: var(--verdigris-wash); color: var(--verdigris); border-radius: var(--round); padding: 14px 16px; display: grid; gap: 10px; font-size: 14.5px; line-height: 1.4; }
.answer strong { font: 700 18px/1.2 var(--title); }
.wants { background: var(--marigold-wash); color: var(--marigold); }
.gauge { position: relative; height: 10px; border-radius: 5px; background: color-mix(in srgb, currentColor 16%, transparent); }
.span { position: absolute; inset: 0 auto; border-radius: 5px; background: currentColor; opacity: 0.45; }
.at { position: absolute; top: -3px; width: 6px; height: 16px; margin-left: -3px; border-radius: 3px; background: currentColor; }
.wanted { position: absolute; top: -6px; width: 0; height: 22px; border-left: 2px dashed var(--ink); }
</style>
