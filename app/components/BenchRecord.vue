<script setup lang="ts">
import { computed, onMounted, reactive, watch } from 'vue'
import { recordSchema, type MakingRecord } from '#core/making/event'
import { factsOf, plannedOf, usedFromBox, usedOf } from '#core/making/record'
import { sittingsOf, workedMs } from '#core/making/sitting'
import { fitKindOf } from '#core/wear/kind'
import type { Piece } from '#core/piece/piece'
import { showNumber } from '#core/units/length'
import type { ShownMaking } from '../line/making'
import { useBox } from '../stores/box'
import { useLengths } from '../composables/lengths'
import CaliperButton from './CaliperButton.vue'
import LengthField from './LengthField.vue'
import NumberField from './NumberField.vue'

/** What is written down of a finished making: what it took, what it came to, for whom; and the box settled by it. */
const props = defineProps<{ piece: Piece; pieceId: string; making: ShownMaking; busy: boolean }>()
const emit = defineEmits<{
  keep: [record: MakingRecord]
  settle: [uses: readonly { readonly shelfId: string; readonly amount: number }[]]
  given: []
  resume: []
  clear: []
}>()
const { length, long } = useLengths()
const box = useBox()
onMounted(() => {
  box.fetch().catch(() => {
    /* the record is kept without the box */
  })
})
const planned = computed(() => plannedOf(props.piece, props.making.head))
const state = computed(() => props.making.state)
const draft = reactive(recordSchema.parse({}))
watch(
  () => props.making.head.id,
  () => {
    Object.assign(draft, recordSchema.parse(state.value.record ?? { wearer: props.piece.fit.wearer }))
  },
  { immediate: true },
)
function setUsed(number: number, count: number, used: number) {
  const others = draft.beads.filter((b) => b.number !== number)
  draft.beads = used === count ? others : [...others, { number, more: used - count }]
}
function setCulls(number: number, count: number) {
  const others = draft.culls.filter((c) => c.number !== number)
  draft.culls = count === 0 ? others : [...others, { number, count }]
}
const hours = computed(() => workedMs(sittingsOf(state.value.presses)) / 3_600_000)
const lost = computed(() => state.value.mistakes.reduce((sum, m) => sum + m.minutes, 0))
const uses = computed(() => usedFromBox(props.piece, props.making.head, draft, box.box, props.pieceId))
const kept = computed(() => state.value.record !== null)
function keep() {
  const record: MakingRecord = recordSchema.parse({ ...draft })
  emit('keep', { ...record, facts: factsOf(props.piece, props.making.head, state.value, record) })
}
const BEADS = { least: 0, most: 10_000_000, whole: true }
</script>

<template>
  <section class="record" aria-labelledby="record">
    <header>
      <h3 id="record">{{ kept ? 'Its record' : 'It is made. Write it down.' }}</h3>
      <p class="soft">
        {{ showNumber(hours, 1) }} h at the bench<template v-if="state.mistakes.length"
          >; {{ state.mistakes.length }} {{ state.mistakes.length === 1 ? 'mistake' : 'mistakes' }}, about
          {{ Math.round(lost) }} min lost</template
        >. Leave out what nobody counted.
      </p>
    </header>
    <table>
      <thead>
        <tr>
          <th scope="col">Bead</th>
          <th scope="col">Planned</th>
          <th scope="col">Really used</th>
          <th scope="col">Put aside</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="{ bead, count } in planned.beads" :key="bead.number">
          <th scope="row">
            <span class="bead" :style="{ '--bead': bead.colour }" aria-hidden="true" />{{ bead.letter }}
            {{ bead.name }}
          </th>
          <td class="figure">{{ showNumber(count) }}</td>
          <td>
            <NumberField
              :model-value="usedOf(planned, draft, bead.number).used"
              :label="`${bead.letter} used`"
              :bounds="BEADS"
              @update:model-value="(n) => setUsed(bead.number, count, n)"
            />
          </td>
          <td>
            <NumberField
              :model-value="usedOf(planned, draft, bead.number).culled"
              :label="`${bead.letter} aside`"
              :bounds="BEADS"
              @update:model-value="(n) => setCulls(bead.number, n)"
            />
          </td>
        </tr>
      </tbody>
    </table>
    <div class="fields">
      <template v-if="planned.threadMm > 0">
        <LengthField
          :model-value="draft.threadMm ?? planned.threadMm"
          :label="`Thread used, planned ${long(planned.threadMm)}`"
          :least="0"
          :most="100_000_000"
          @update:model-value="(mm) => (draft.threadMm = mm)"
        />
      </template>
      <div class="measured">
        <LengthField
          :model-value="draft.lengthMm ?? Math.round(planned.lengthMm)"
          :label="`Length of the beadwork, planned ${length(planned.lengthMm, 1)}`"
          :least="1"
          :most="4000"
          @update:model-value="(mm) => (draft.lengthMm = mm)"
        />
        <CaliperButton label="Length of the beadwork" @measured="(mm) => (draft.lengthMm = mm)" />
      </div>
      <VTextField v-model="draft.wearer" label="For whom" maxlength="60" />
      <VTextarea v-model="draft.changed" label="What changed against the plan, and why" rows="2" maxlength="2000" />
      <VTextarea v-model="draft.notes" label="Notes" rows="2" maxlength="2000" />
    </div>
    <ul v-if="state.mistakes.length" class="mistakes">
      <li v-for="m in state.mistakes" :key="m.at">{{ m.says }}</li>
    </ul>
    <label class="strange"
      ><input v-model="draft.strange" type="checkbox" /> This making was not like mine: learn nothing from it</label
    >
    <div class="acts">
      <button type="button" class="button main" @click="keep">{{ kept ? 'Keep it so' : 'Keep the record' }}</button>
      <button
        v-if="!state.settled"
        type="button"
        class="button"
        :disabled="busy || uses.length === 0"
        @click="emit('settle', uses)"
      >
        Take it out of the box
      </button>
      <button v-else type="button" class="button" :disabled="busy" @click="emit('settle', [])">
        Put it back in the box
      </button>
      <button v-if="state.status === 'made'" type="button" class="button" @click="emit('given')">
        {{ fitKindOf(piece.fit.kind).pieces === 2 ? 'They are given away' : 'It is given away' }}
      </button>
      <button v-if="!state.settled" type="button" class="button" @click="emit('resume')">
        Not finished after all
      </button>
      <button type="button" class="button" @click="emit('clear')">Clear the bench</button>
    </div>
    <p v-if="state.settled" class="fine" role="status" data-test="settled">
      The box is settled: {{ state.settled.length }} {{ state.settled.length === 1 ? 'thing' : 'things' }} taken out.
    </p>
    <p v-else-if="uses.length === 0" class="soft">The box holds nothing of what it took.</p>
  </section>
</template>

<style scoped>
.record {
  display: grid;
  gap: 16px;
  align-content: start;
}
h3 {
  font: 700 clamp(28px, 3.4vw, 42px) / 1.1 var(--title);
}
table {
  border-collapse: collapse;
  max-width: 720px;
}
th,
td {
  text-align: left;
  padding: 4px 12px 4px 0;
  font-weight: 500;
}
thead th {
  color: var(--soft);
  font-size: 15px;
}
tbody th {
  white-space: nowrap;
}
td.figure {
  font-size: 19px;
}
.bead {
  display: inline-block;
  vertical-align: middle;
  margin-right: 8px;
  width: 18px;
  height: 24px;
  border-radius: 6px;
  background: linear-gradient(100deg, rgb(255 255 255 / 36%), transparent 45%, rgb(0 0 0 / 26%)), var(--bead);
}
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 300px), 1fr));
  gap: 14px;
  max-width: 900px;
}
.measured {
  display: flex;
  gap: 10px;
  align-items: start;
}
.measured > :first-child {
  flex: 1;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
}
.strange {
  display: flex;
  gap: 10px;
  align-items: center;
  min-height: 44px;
}
.strange input {
  width: 20px;
  height: 20px;
  accent-color: var(--madder);
}
.fine,
.mistakes {
  margin: 0;
  padding: 10px 16px;
  border-radius: var(--round-in);
  background: var(--verdigris-wash);
  color: var(--verdigris);
}
.mistakes {
  padding-left: 32px;
}
@media (width <= 600px) {
  tbody th {
    white-space: normal;
  }
  th,
  td {
    padding-right: 6px;
  }
}
</style>
