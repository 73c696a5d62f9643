<script setup lang="ts">
import { computed, onMounted, reactive, ref } from 'vue'
import { requireSpec } from '#core/bead/spec'
import {
  gaugeFor,
  gaugeKeyOf,
  handOf,
  questionedSwatches,
  sameGauge,
  swatchFactors,
  withoutSwatch,
  withSwatch,
  workedOf,
} from '#core/fit/gauge'
import { setStep } from '#core/piece/edit'
import { laidRows } from '#core/piece/laid'
import { columnsOf, fittedPart, techniqueOf, type Piece } from '#core/piece/piece'
import { boundsOf } from '#core/bounds'
import { swatchSchema, type Gauge, type Swatch } from '#core/piece/schema'
import type { Step } from '#core/piece/step'
import { requireThread } from '#core/thread/catalogue'
import { showNumber } from '#core/units/length'
import { useKeptGauges } from '../composables/gauges'
import { useLengths } from '../composables/lengths'
import { saying } from '../composables/saying'
import { useShelf } from '../stores/shelf'
import CaliperButton from './CaliperButton.vue'
import { plainEndsMm } from '#core/fit/extent'
import LengthField from './LengthField.vue'
import NumberField from './NumberField.vue'
import ReadForm from './ReadForm.vue'

/** What the hand that makes it measured in this stitch, bead and thread; kept for every piece. */
const props = defineProps<{ piece: Piece }>()
const emit = defineEmits<{ steps: [label: string, steps: Step[]] }>()
const shelf = useShelf()
const { keepGauge } = useKeptGauges()
const { length } = useLengths()
const says = ref('')
onMounted(() => {
  shelf.fetch().catch(() => {
    /* the piece's own gauge is there without */
  })
})

const part = computed(() => fittedPart(props.piece))
const key = computed(() => gaugeKeyOf(part.value, props.piece.supply.thread))
const worked = computed(() => workedOf(part.value))
const gauge = computed(() => gaugeFor(props.piece, part.value))
const hand = computed(() => (gauge.value ? handOf(gauge.value, worked.value) : null))
const questioned = computed(() => (gauge.value ? questionedSwatches(gauge.value, worked.value) : []))
const kept = computed(() => shelf.gauges.find((g) => sameGauge(g.value.gauge, key.value)))
const differs = computed(
  () => kept.value && JSON.stringify(kept.value.value.gauge.swatches) !== JSON.stringify(gauge.value?.swatches ?? []),
)
const percent = (share: number) => `${share < 0 ? '−' : '+'} ${showNumber(Math.abs(share) * 100, 1)} %`

/** The piece's gauges and those kept for all pieces move together. */
async function keep(gauges: Gauge[]) {
  emit('steps', 'Gauge', [setStep(props.piece, ['gauges'], gauges)])
  says.value = ''
  await saying(
    () => keepGauge(gauges, key.value),
    (text) => {
      says.value = text
    },
  )
}
const draft = reactive({ rows: 20, lengthMm: 30, columns: 0, widthMm: 0 })
const adding = ref(false)
const wide = computed(() => draft.columns > 0)
const words = computed(() => techniqueOf(part.value).words)
function open() {
  const rows = 20
  draft.rows = rows
  draft.lengthMm = Math.round(
    techniqueOf(part.value).growth.lengthOf({
      columns: columnsOf(part.value),
      bead: requireSpec(part.value.spec),
      settings: part.value.settings,
      rows: 120,
    }) -
      techniqueOf(part.value).growth.lengthOf({
        columns: columnsOf(part.value),
        bead: requireSpec(part.value.spec),
        settings: part.value.settings,
        rows: 100,
      }),
  )
  draft.columns = 0
  draft.widthMm = 0
  adding.value = true
}
async function add() {
  const { rows, columns } = draft
  adding.value = false
  await keep(
    withSwatch(props.piece.gauges, key.value, {
      rows,
      lengthMm: draft.lengthMm,
      columns,
      widthMm: columns > 0 ? draft.widthMm : 0,
      from: '',
    }),
  )
}
// ---- a finished piece is the best swatch
const finishedMm = ref(0)
const finishing = ref(false)
async function finished() {
  finishing.value = false
  await keep(
    withSwatch(props.piece.gauges, key.value, {
      rows: laidRows(part.value),
      lengthMm: finishedMm.value - plainEndsMm(part.value),
      columns: 0,
      widthMm: 0,
      from: props.piece.name,
    }),
  )
}
const use = () =>
  emit('steps', 'Use my gauge', [
    setStep(
      props.piece,
      ['gauges'],
      [...props.piece.gauges.filter((g) => !sameGauge(g, key.value)), kept.value!.value.gauge],
    ),
  ])
const factor = (s: Swatch) => swatchFactors(gauge.value!, s, worked.value).along - 1
const why = (index: number) => questioned.value.find((q) => q.index === index)?.why
</script>

<template>
  <section class="gauge" aria-labelledby="gauge">
    <h2 id="gauge">Gauge: how your hand works</h2>
    <p class="soft">
      <template v-if="hand"
        >In {{ techniqueOf(part).name.toLowerCase() }}, {{ requireSpec(part.spec).name }},
        {{ requireThread(piece.supply.thread).name }} your work comes <b>{{ percent(hand.along - 1) }}</b> against
        nominal beads, give or take {{ showNumber(hand.spread * 100, 1) }} %.</template
      >
      <template v-else
        >Not measured yet in {{ techniqueOf(part).name.toLowerCase() }}, {{ requireSpec(part.spec).name }},
        {{ requireThread(piece.supply.thread).name }}. {{ words.sample.how }}</template
      >
    </p>
    <p v-if="differs" class="use">
      You have
      {{ kept!.value.gauge.swatches.length === 1 ? 'one swatch' : `${kept!.value.gauge.swatches.length} swatches` }} of
      this stitch, bead and thread. <button type="button" class="button" @click="use">Use my gauge</button>
    </p>
    <ul v-if="gauge">
      <li v-for="(s, k) in gauge.swatches" :key="k" :class="{ strange: why(k) }">
        <span
          ><b>{{ s.rows }} {{ words.line }}s = {{ length(s.lengthMm, 1) }}</b>
          <span class="quiet"
            >{{ percent(factor(s))
            }}<template v-if="s.columns"> · {{ s.columns }} across = {{ length(s.widthMm, 1) }}</template
            ><template v-if="s.from"> · {{ s.from }}</template></span
          ></span
        >
        <button
          type="button"
          class="link"
          :aria-label="`Take out ${s.rows} ${words.line}s = ${length(s.lengthMm, 1)}`"
          @click="keep(withoutSwatch(piece.gauges, key, k))"
        >
          Take out
        </button>
        <p v-if="why(k)" class="why">
          {{
            why(k) === 'far from the others'
              ? 'Far from the others: was a row miscounted, or the tape stretched?'
              : 'Far from what the beads say: check count and tape.'
          }}
        </p>
      </li>
    </ul>
    <ReadForm v-if="adding" class="form" @done="add">
      <NumberField
        v-model="draft.rows"
        :label="words.sample.counted"
        :bounds="boundsOf(swatchSchema, 'rows')"
        :hint="words.sample.where"
      />
      <div class="with">
        <LengthField v-model="draft.lengthMm" label="They measure" :bounds="boundsOf(swatchSchema, 'lengthMm')" />
        <CaliperButton
          :label="`Length of the ${words.sample.name}`"
          @measured="
            (mm) => {
              draft.lengthMm = mm
            }
          "
        />
      </div>
      <NumberField
        v-if="words.sample.wide"
        v-model="draft.columns"
        label="Beads across (optional)"
        :bounds="boundsOf(swatchSchema, 'columns')"
        optional
      />
      <LengthField
        v-if="wide"
        v-model="draft.widthMm"
        label="Width of these"
        :bounds="boundsOf(swatchSchema, 'widthMm')"
      />
      <div class="acts">
        <button type="submit" class="button main">Keep the {{ words.sample.name }}</button
        ><button type="button" class="button plain" @click="adding = false">Not now</button>
      </div>
    </ReadForm>
    <ReadForm v-else-if="finishing" class="form" @done="finished">
      <LengthField
        v-model="finishedMm"
        label="Finished beadwork measures"
        :bounds="boundsOf(swatchSchema, 'lengthMm')"
        :hint="
          plainEndsMm(part) > 0
            ? 'Without its closure, laid flat, plain ends included: these are taken off.'
            : 'Without its closure, laid flat.'
        "
      />
      <div class="acts">
        <button type="submit" class="button main">Keep it as my gauge</button
        ><button type="button" class="button plain" @click="finishing = false">Not now</button>
      </div>
    </ReadForm>
    <div v-else class="acts">
      <button type="button" class="button" @click="open">Enter a {{ words.sample.name }}</button>
      <button
        type="button"
        class="button"
        @click="
          () => {
            finishedMm = 0
            finishing = true
          }
        "
      >
        This piece is finished: measure it
      </button>
    </div>
    <p v-if="says" class="why" role="alert">{{ says }}</p>
  </section>
</template>

<style scoped>
.gauge {
  display: grid;
  gap: 12px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 2px 12px;
  align-items: center;
  padding: 6px 0;
  border-top: 1px solid var(--line);
  font-size: 14.5px;
}
.link {
  min-height: 36px;
  font-size: 14px;
}
.why {
  grid-column: 1 / -1;
  color: var(--marigold);
  font-size: 14px;
}
.use {
  display: flex;
  gap: 12px;
  align-items: center;
  flex-wrap: wrap;
  background: var(--verdigris-wash);
  color: var(--verdigris);
  border-radius: var(--round-in);
  padding: 10px 14px;
  font-size: 14.5px;
}
.form {
  display: grid;
  gap: 14px;
}
.with {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 8px;
  align-items: start;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
</style>
