<script setup lang="ts">
import { computed, ref, shallowRef } from 'vue'
import { findPart, type Part, type Piece } from '#core/piece/piece'
import { shortened } from '#core/units/text'
import type { Finding, Mend } from '#core/proof/found'
import { countsChanged, mended } from '#core/proof/mend'
import { showNumber } from '#core/units/length'
import ProofPicture from './ProofPicture.vue'

/** One finding: what is wrong, where, why; its mends, shown before they are taken; and “it is meant so”. */
const props = defineProps<{
  finding: Finding
  piece: Piece
  /** Others of its kind that have a mend as well. */
  more: number
}>()
const emit = defineEmits<{
  show: []
  mend: [mend: Mend]
  all: []
  meant: [reason: string]
  speak: []
}>()

const WEIGHTS = { stops: 'Stops the work', looks: 'Looks wrong', note: 'Worth knowing' } as const

const part = computed<Part | null>(() =>
  props.finding.part ? (findPart(props.piece, props.finding.part) ?? null) : null,
)
const tried = shallowRef<Mend | null>(null)
/** The piece as it would be; null while nothing is tried, or where it no longer fits. */
const after = computed<Piece | null>(() => {
  if (!tried.value) return null
  const made = mended(props.piece, tried.value.steps)
  return made.ok ? made.value : null
})
const afterPart = computed(() => (part.value && after.value ? (findPart(after.value, part.value.id) ?? null) : null))
const counts = computed(() => (after.value ? countsChanged(props.piece, after.value) : []))

const saying = ref(false)
const reason = ref('')
function keepQuiet() {
  emit('meant', shortened(reason.value.trim(), 200) || 'meant so')
  saying.value = false
}
</script>

<template>
  <article class="finding" :class="finding.weight" :data-rule="finding.rule">
    <p class="weight"><span class="sign" aria-hidden="true" />{{ WEIGHTS[finding.weight] }}</p>
    <p class="says">{{ finding.says }}</p>
    <p class="quiet">{{ finding.why }}</p>
    <p v-if="finding.meant !== null" class="meant">
      <b>Meant so:</b> {{ finding.meant }}
      <button type="button" class="link" @click="emit('speak')">Say it again</button>
    </p>
    <div v-else class="acts">
      <button v-if="part && finding.spots.length" type="button" class="button small" @click="emit('show')">
        Show it on the mat
      </button>
      <button
        v-for="mend in finding.mends"
        :key="mend.label"
        type="button"
        class="button small mend"
        :aria-expanded="tried === mend"
        @click="tried = tried === mend ? null : mend"
      >
        {{ mend.label }}
      </button>
      <button v-if="!saying" type="button" class="link" @click="saying = true">It is meant so</button>
    </div>
    <form v-if="saying && finding.meant === null" class="reason" @submit.prevent="keepQuiet">
      <VTextField
        v-model="reason"
        label="Why, for later"
        placeholder="a double turn"
        maxlength="200"
        density="compact"
        autofocus
        hide-details
      />
      <button type="submit" class="button small">Keep it quiet</button>
      <button type="button" class="link" @click="saying = false">Leave it</button>
    </form>
    <div v-if="tried && after" class="trial">
      <div v-if="part && afterPart" class="pictures">
        <ProofPicture :part="part" :tray="piece.tray" :spots="finding.spots" marked says="Now" />
        <ProofPicture :part="afterPart" :tray="after.tray" :spots="finding.spots" :marked="false" says="Afterwards" />
      </div>
      <p v-if="counts.length" class="counts">
        <span v-for="c in counts" :key="c.bead.number" class="count"
          ><span class="swatch" :style="{ '--bead': c.bead.colour }" /> <b>{{ c.bead.letter }}</b>
          {{ showNumber(c.before) }} → {{ showNumber(c.after) }}</span
        >
      </p>
      <p v-else class="quiet">No bead is counted otherwise.</p>
      <div class="acts">
        <button type="button" class="button main" @click="emit('mend', tried)">{{ tried.label }}</button>
        <button v-if="more > 0" type="button" class="button" @click="emit('all')">
          Mend all {{ more + 1 }} of this kind
        </button>
        <button type="button" class="link" @click="tried = null">Leave it</button>
      </div>
    </div>
    <p v-else-if="tried" class="quiet" role="status">The piece has changed meanwhile: this no longer fits.</p>
  </article>
</template>

<style scoped>
.finding {
  display: grid;
  gap: 8px;
  padding: 14px 16px 14px 18px;
  background: var(--paper);
  border-radius: var(--round-in);
  border-inline-start: 5px solid var(--edge);
}
.stops {
  border-inline-start-color: var(--madder);
}
.looks {
  border-inline-start-color: var(--marigold);
}
.weight {
  display: flex;
  align-items: center;
  gap: 8px;
  font: 700 13.5px/1.2 var(--text);
  color: var(--soft);
}
.stops .weight {
  color: var(--madder);
}
.looks .weight {
  color: var(--marigold);
}
/* A shape for each weight: a bar, a lozenge, a ring. */
.sign {
  width: 12px;
  height: 12px;
  border: 2.5px solid currentColor;
  border-radius: 50%;
}
.looks .sign {
  border: 0;
  background: currentColor;
  border-radius: 2px;
  transform: rotate(45deg) scale(0.85);
}
.stops .sign {
  border: 0;
  background: currentColor;
  border-radius: 2px;
  height: 6px;
  width: 16px;
}
.says {
  font-size: 16px;
  max-width: 78ch;
}
.acts,
.reason {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: center;
}
.reason > :first-child {
  flex: 1 1 220px;
}
.small {
  min-height: 38px;
  padding: 0 13px;
  font-size: 14px;
}
.link {
  min-height: 38px;
}
.trial {
  display: grid;
  gap: 10px;
  padding-top: 10px;
  border-top: 1px solid var(--line);
}
.pictures {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 240px), 1fr));
  gap: 12px;
}
.counts {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 18px;
}
.count {
  white-space: nowrap;
}
.meant .link {
  margin-inline-start: 10px;
}
</style>
