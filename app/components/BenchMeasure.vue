<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { choiceSteps, type Choice } from '#core/fit/choices'
import { withoutSwatchFrom } from '#core/fit/gauge'
import { rowListOf, type ChoreTask } from '#core/making/agenda'
import { beadRowsAt, madeMm, meaningOf } from '#core/making/measure'
import type { Measured } from '#core/making/event'
import { setStep } from '#core/piece/edit'
import { linesWord } from '#core/piece/nature'
import type { Piece } from '#core/piece/piece'
import type { Step } from '#core/piece/step'
import { fitKindOf } from '#core/wear/kind'
import { useLengths } from '../composables/lengths'
import { choiceWords, offWords } from '../composables/choice-words'
import CaliperButton from './CaliperButton.vue'
import LengthField from './LengthField.vue'

/** A measuring stop: how long it should be, how long it is, what that means for the end, and what may be done. */
const props = defineProps<{ piece: Piece; task: ChoreTask; measured: Measured | null }>()
const emit = defineEmits<{
  measure: [rows: number, mm: number]
  take: [label: string, steps: Step[]]
}>()
const { length } = useLengths()
const part = computed(() => props.task.part)
const rows = computed(() => {
  const list = rowListOf(props.piece, part.value)
  return beadRowsAt(part.value, list, list.placeOf(props.task.row))
})
/** As the plan stood before it was measured here: the measure itself must not move what it is measured against. */
const at = computed(() => `on the bench, ${rows.value} ${linesWord(part.value)} in`)
const before = computed(() => ({
  ...props.piece,
  gauges: withoutSwatchFrom(
    props.piece.gauges,
    { technique: part.value.technique, spec: part.value.spec, thread: props.piece.supply.thread },
    at.value,
  ),
}))
const foreseen = computed(() => madeMm(before.value, part.value, rows.value))
const mm = ref(0)
watch(
  [() => props.task.key, () => props.measured?.mm],
  () => {
    mm.value = props.measured?.mm ?? Math.round(foreseen.value)
  },
  { immediate: true },
)
const meaning = computed(() =>
  props.measured
    ? meaningOf(before.value, part.value, { rows: rows.value, mm: props.measured.mm, at: at.value })
    : null,
)
const kind = computed(() => fitKindOf(props.piece.fit.kind))
const closes = (mmAt: number) => `${kind.value.bend === 'round' ? 'closes at' : 'comes to'} ${length(mmAt, 1)}`
const MOST_SHOWN = 4
const choices = computed(() => meaning.value?.choices.slice(0, MOST_SHOWN) ?? [])

function measure(value: number) {
  mm.value = value
  emit('measure', rows.value, value)
  const { gauges } = meaningOf(before.value, part.value, { rows: rows.value, mm: value, at: at.value })
  emit('take', 'Measured on the bench', [setStep(props.piece, ['gauges'], gauges)])
}
const take = (choice: Choice) => emit('take', 'Fitted on the bench', choiceSteps(props.piece, choice))
</script>

<template>
  <div class="measure">
    <p class="should">
      It should now measure <b class="figure" data-test="should">{{ length(foreseen, 1) }}</b>, laid flat along a ruler
      or round where it is worn. Do not pull it.
    </p>
    <form class="type" @submit.prevent="measure(mm)">
      <LengthField v-model="mm" label="It measures" :least="1" :most="4000" />
      <button type="submit" class="button main">That is it</button>
      <CaliperButton label="Length" @measured="measure" />
    </form>
    <template v-if="measured && meaning">
      <p v-if="meaning.strange" class="strange" role="alert">
        That is far from what your beads and your hand give. Measure and count once more; type it again if it is so.
      </p>
      <p class="means" role="status" data-test="means">
        At this rate it {{ closes(meaning.fit.atMm) }}, {{ offWords(meaning.fit.differenceMm, length) }}; by the plan
        it was {{ length(meaning.planned.atMm, 1) }}.
      </p>
      <ul class="choices" aria-label="What may still be done">
        <li v-for="c in choices" :key="c.id" :class="{ current: c.current }">
          <span
            ><b>{{ c.times }} {{ c.times === 1 ? 'repeat' : 'repeats' }}</b
            >, {{ choiceWords(c, { piece, part }, length) }}: {{ closes(c.fit.atMm) }},
            {{ offWords(c.fit.differenceMm, length) }}</span
          >
          <span v-if="c.current" class="quiet">as planned</span>
          <button v-else type="button" class="button" @click="take(c)">Take it</button>
        </li>
      </ul>
    </template>
  </div>
</template>

<style scoped>
.measure {
  display: grid;
  gap: 12px;
}
.should {
  font-size: clamp(18px, 1.9vw, 24px);
}
.should .figure {
  font-size: 1.4em;
}
.type {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  align-items: center;
}
.type > :first-child {
  flex: 0 1 220px;
}
.means {
  font: 650 clamp(18px, 1.8vw, 23px) / 1.3 var(--title);
  color: var(--verdigris);
}
.strange {
  padding: 10px 14px;
  border-radius: var(--round-in);
  background: var(--marigold-wash);
  color: var(--marigold);
}
.choices {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 6px;
}
.choices li {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 16px;
  justify-content: space-between;
  align-items: center;
  padding: 8px 14px;
  border-radius: 12px;
  background: var(--paper);
  min-height: 52px;
}
</style>
