<script setup lang="ts">
import { computed, ref } from 'vue'
import type { MakingListing } from '#core/contract/making'
import { COPY_ORDERS, type CopyOrder } from '#core/making/agenda'
import { courseOf } from '#core/making/chore'
import { boundsOf } from '#core/bounds'
import { BENCH_LIMITS, makingSchema } from '#core/making/event'
import type { Piece } from '#core/piece/piece'
import { timesMade } from '#core/supply/beads'
import { showNumber } from '#core/units/length'
import { fitKindOf } from '#core/wear/kind'
import { dayWords } from '../composables/days'
import NumberField from './NumberField.vue'

/** Nothing is on the bench: what the work is, how many are made and in which order; and what was made before. */
const props = defineProps<{
  piece: Piece
  makings: readonly MakingListing[]
  busy: boolean
  /** What was learned and is reckoned with, in words. */
  taught: readonly string[]
}>()
const emit = defineEmits<{
  begin: [copies: number, order: CopyOrder]
  take: [making: string]
  remove: [making: string]
  again: [making: MakingListing]
}>()
/** The making that is about to be removed, until it is said once more. */
const leaving = ref('')
const copies = ref(Math.min(BENCH_LIMITS.copies, timesMade(props.piece)))
const order = ref<CopyOrder>('in turn')
const agenda = computed(() => courseOf(props.piece, { copies: copies.value, copyOrder: order.value }))
const pair = computed(() => fitKindOf(props.piece.fit.kind).pieces === 2)
const ORDERS: Record<CopyOrder, string> = {
  'in turn': 'One after the other',
  'side by side': 'Side by side, row by row',
}
</script>

<template>
  <section class="begin" aria-labelledby="bench-begin">
    <h2 id="bench-begin">Put it on the bench</h2>
    <p v-if="agenda.beads === 0">Nothing is laid yet: lay beads on the mat first.</p>
    <template v-else>
      <p class="what">
        <b class="figure">{{ showNumber(agenda.beads) }}</b> beads in
        <b class="figure">{{ showNumber(agenda.count) }}</b> steps. Weben leads through them one at a time and keeps
        your place on every device.
      </p>
      <div class="fields">
        <NumberField
          v-model="copies"
          :label="pair ? 'How many, each counted' : 'How many'"
          :bounds="boundsOf(makingSchema, 'copies')"
        />
        <VSelect
          v-if="copies > 1"
          v-model="order"
          :items="COPY_ORDERS.map((value) => ({ value, title: ORDERS[value] }))"
          label="In which order"
        />
      </div>
      <button type="button" class="button main large" :disabled="busy" @click="emit('begin', copies, order)">
        Begin
      </button>
    </template>
    <template v-if="makings.length">
      <h3>Makings of this piece</h3>
      <p v-if="taught.length" class="soft">
        Made again, it begins with what your hand has taught: {{ taught.join('; ') }}.
      </p>
      <ul>
        <li v-for="m in makings" :key="m.id">
          <span
            ><b>{{ m.status }}</b
            ><template v-if="m.copies > 1"> · {{ m.copies }} of them</template> · begun {{ dayWords(m.begunAt)
            }}<template v-if="m.at"> · last worked on {{ dayWords(m.at) }}</template></span
          ><span class="acts"
            ><button type="button" class="link" :disabled="busy" @click="emit('take', m.id)">
              {{ m.status === 'on the bench' || m.status === 'planned' ? 'Go on with it' : 'Look at it' }}</button
            ><button
              v-if="m.status === 'made' || m.status === 'given'"
              type="button"
              class="link"
              :disabled="busy"
              @click="emit('again', m)"
            >
              Make it again</button
            ><button
              type="button"
              class="link"
              :disabled="busy"
              @click="leaving === m.id ? emit('remove', m.id) : (leaving = m.id)"
            >
              {{ leaving === m.id ? 'Yes, remove it for good' : 'Remove' }}
            </button></span
          >
        </li>
      </ul>
    </template>
  </section>
</template>

<style scoped>
.begin {
  display: grid;
  gap: 18px;
  max-width: 620px;
  align-content: start;
  margin: 4vh auto 0;
  width: 100%;
}
h2 {
  font-size: 30px;
}
.what {
  font-size: 18px;
  line-height: 1.5;
}
.what .figure {
  font-size: 24px;
}
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(220px, 1fr));
  gap: 14px;
}
.large {
  min-height: 60px;
  font-size: 19px;
  justify-self: start;
  padding: 0 44px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  flex-wrap: wrap;
  padding: 10px 0;
  border-top: 1px solid var(--line);
}
.acts {
  display: inline-flex;
  gap: 18px;
}
.link {
  min-height: 32px;
}
</style>
