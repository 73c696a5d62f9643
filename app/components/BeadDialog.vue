<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { FINISHES, nextOnTray, type TrayBead } from '#core/bead/bead'
import { GLYPH_IDS, type GlyphId } from '#core/bead/glyph'
import { BEAD_SPECS } from '#core/bead/spec'
import { setStep, swapSteps } from '#core/piece/edit'
import type { Piece } from '#core/piece/piece'
import type { Step } from '#core/piece/step'
import { tallyPiece } from '#core/tally/tally'
import GlyphMark from './GlyphMark.vue'

/** Changes a bead of the tray, or adds one. */
const props = defineProps<{ piece: Piece, number: number | 'new' | null, spec: string }>()
const emit = defineEmits<{ close: [], steps: [label: string, steps: Step[], choose?: number] }>()

type Draft = { -readonly [K in keyof TrayBead]: TrayBead[K] }
const draft = ref<Draft | null>(null)
watch(() => props.number, (number) => {
  if (number === null) return
  draft.value = number === 'new'
    ? { ...nextOnTray(props.piece.tray), name: '', spec: props.spec, colour: '#6d8f5a', finish: 'opaque' }
    : { ...props.piece.tray.find(b => b.number === number)! }
}, { immediate: true })

const used = computed(() => (typeof props.number === 'number' ? tallyPiece(props.piece).get(props.number) ?? 0 : 0))
const specs = BEAD_SPECS.map(s => ({ value: s.id, title: `${s.name} · ${s.d} × ${s.l} mm` }))
const finishes = FINISHES.map(f => ({ value: f, title: f }))

function save() {
  const bead = draft.value
  if (!bead) return
  const named = { ...bead, name: bead.name.trim() || `Bead ${bead.letter}`, colour: bead.colour.toLowerCase() }
  if (props.number === 'new') emit('steps', `Add ${named.name}`, [{ type: 'tray', do: 'insert', at: props.piece.tray.length, bead: named }], named.number)
  else {
    const old = props.piece.tray.find(b => b.number === bead.number)!
    const fields = ['name', 'colour', 'finish', 'spec', 'glyph'] as const
    emit('steps', `Change ${named.name}`, fields.filter(f => old[f] !== named[f]).map(f => setStep(props.piece, ['tray', bead.number, f], named[f])))
  }
  emit('close')
}

const swapTo = ref<number | null>(null)
const others = computed(() => props.piece.tray.filter(b => b.number !== props.number).map(b => ({ value: b.number, title: `${b.letter} ${b.name}` })))

/** Takes the bead off the tray; where it is used, another takes its place first. */
function remove() {
  const number = props.number
  if (typeof number !== 'number') return
  const at = props.piece.tray.findIndex(b => b.number === number)
  const swaps = used.value > 0 && swapTo.value !== null ? props.piece.parts.flatMap(p => swapSteps(p, number, swapTo.value!)) : []
  emit('steps', `Take ${props.piece.tray[at]!.name} off`, [...swaps, { type: 'tray', do: 'remove', at, bead: props.piece.tray[at]! }], swapTo.value ?? others.value[0]?.value)
  emit('close')
}
</script>

<template>
  <VDialog :model-value="number !== null" max-width="520" aria-label="Bead" @update:model-value="v => !v && emit('close')">
    <form v-if="draft" class="sheet form" aria-label="Bead" @submit.prevent="save">
      <h2>{{ number === 'new' ? 'Add a bead' : `Bead ${draft.letter}` }}</h2>
      <VTextField v-model="draft.name" label="Name" maxlength="60" autofocus placeholder="Your own name for it" />
      <div class="pair">
        <label class="colour">Colour <input v-model="draft.colour" type="color"></label>
        <VSelect v-model="draft.finish" :items="finishes" label="Finish" />
      </div>
      <VSelect v-model="draft.spec" :items="specs" label="Shape and size" />
      <fieldset>
        <legend>Glyph, for black-and-white charts</legend>
        <div class="glyphs">
          <label v-for="g in GLYPH_IDS" :key="g" :title="g" :class="{ on: draft.glyph === g }">
            <input v-model="draft.glyph" type="radio" name="glyph" :value="g as GlyphId" class="hidden"><span class="hidden">{{ g }}</span>
            <svg viewBox="0 0 1 1" aria-hidden="true"><GlyphMark :glyph="g" ink="currentColor" /></svg>
          </label>
        </div>
      </fieldset>
      <div v-if="number !== 'new' && piece.tray.length > 1" class="off">
        <VSelect v-if="used > 0" v-model="swapTo" :items="others" :label="`Used ${used} times: lay in its place`" density="compact" />
        <button class="button plain" type="button" :disabled="used > 0 && swapTo === null" @click="remove">Take it off the tray</button>
      </div>
      <div class="ends">
        <button class="button" type="button" @click="emit('close')">Leave it</button>
        <button class="button main" type="submit">{{ number === 'new' ? 'Add' : 'Keep' }}</button>
      </div>
    </form>
  </VDialog>
</template>

<style scoped>
.form { display: grid; gap: 16px; box-shadow: var(--shadow); max-height: 90dvh; overflow: auto; }
.pair { display: grid; grid-template-columns: auto 1fr; gap: 16px; align-items: center; }
.colour { display: flex; gap: 10px; align-items: center; color: var(--soft); }
input[type='color'] { width: 64px; height: 48px; border: 1.5px solid var(--edge); border-radius: 10px; background: var(--paper); padding: 3px; cursor: pointer; }
fieldset { border: 0; padding: 0; margin: 0; }
legend { color: var(--soft); font-size: 14px; padding: 0 0 6px; }
.glyphs { display: grid; grid-template-columns: repeat(auto-fill, 40px); gap: 4px; }
.glyphs label { width: 40px; height: 40px; display: grid; place-items: center; border-radius: 8px; cursor: pointer; color: var(--ink); }
.glyphs label:hover { background: var(--ground); }
.glyphs .on { background: var(--dark); color: var(--dark-ink); }
.glyphs label:has(:focus-visible) { outline: 2px solid var(--madder); }
.glyphs svg { width: 26px; height: 26px; }
.ends { display: flex; gap: 12px; justify-content: flex-end; }
.off { display: grid; gap: 8px; justify-items: start; }
.off > :first-child { width: 100%; }
.off .button { padding: 0 4px; color: var(--verdigris); text-decoration: underline; }
</style>
