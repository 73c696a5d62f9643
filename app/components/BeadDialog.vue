<script setup lang="ts">
import { tryParseNumber } from '#core/units/number'
import { computed, reactive, ref, watch } from 'vue'
import { FINISHES, nextOnTray, type TrayBead } from '#core/bead/bead'
import { nearestInColour, runsInsteadOf } from '#core/bead/substitute'
import { GLYPH_IDS, type GlyphId } from '#core/bead/glyph'
import {
  BEAD_SHAPES,
  isCord,
  ownSpecId,
  ownSpecProblems,
  requireSpec,
  SHAPE_FACTS,
  shapeName,
  type BeadShape,
} from '#core/bead/spec'
import { setStep, swapSteps } from '#core/piece/edit'
import type { Piece } from '#core/piece/piece'
import type { Step } from '#core/piece/step'
import { usesOf } from '#core/tally/tally'
import { showNumber } from '#core/units/length'
import { sameLook } from '#core/piece/tray'
import { saying } from '../composables/saying'
import { useSpecs } from '../composables/specs'
import { useShelf } from '../stores/shelf'
import CaliperButton from './CaliperButton.vue'
import ReadForm from './ReadForm.vue'
import GlyphMark from './GlyphMark.vue'

/** Changes a bead of the tray, or adds one. */
const props = defineProps<{ piece: Piece; number: number | 'new' | null; spec: string }>()
const emit = defineEmits<{ close: []; steps: [label: string, steps: Step[], choose?: number] }>()

type Draft = { -readonly [K in keyof TrayBead]: TrayBead[K] }
const draft = ref<Draft | null>(null)
watch(
  () => props.number,
  (number) => {
    if (number === null) return
    draft.value =
      number === 'new'
        ? { ...nextOnTray(props.piece.tray), name: '', spec: props.spec, colour: '#6d8f5a', finish: 'opaque' }
        : { ...props.piece.tray.find((b) => b.number === number)! }
  },
  { immediate: true },
)

const used = computed(() => (typeof props.number === 'number' ? usesOf(props.piece, props.number) : 0))
const shelf = useShelf()
const says = ref('')
const NEW_SIZE = 'new size'
const known = useSpecs(
  () => [...props.piece.tray.map((b) => b.spec), draft.value?.spec ?? ''],
  () => isCord(requireSpec(draft.value?.spec ?? props.spec)),
)
const cord = computed(() => isCord(requireSpec(draft.value?.spec ?? props.spec)))
const specs = computed(() =>
  cord.value ? known.value : [{ value: NEW_SIZE, title: 'A size of my own…' }, ...known.value],
)

// ---- a size of one's own, measured with a caliper
const measuring = ref(false)
/** A name is asked for once the size is to be used, not before. */
const pressed = ref(false)
const own = reactive({ shape: 'round' as BeadShape, name: '', d: '2.2', l: '1.5', h: '0.8', perGram: '100' })
const ANY = { least: 0, most: 1_000_000, whole: false }
const readNumber = (text: string) => {
  const read = tryParseNumber(text, ANY)
  return read.ok ? read.value : NaN
}
const ownSize = computed(() => ({
  shape: own.shape,
  name: own.name.trim(),
  d: readNumber(own.d),
  l: readNumber(own.l),
  h: readNumber(own.h),
  perGram: readNumber(own.perGram),
}))
const ownTrouble = computed(
  () =>
    Object.fromEntries(ownSpecProblems(ownSize.value).map((p) => [p.field, p.says])) as Partial<
      Record<'name' | 'd' | 'l' | 'h' | 'perGram', string>
    >,
)
const shapes = BEAD_SHAPES.map((value) => ({ value, title: shapeName(value) }))
function chooseSpec(id: string) {
  if (id === NEW_SIZE) {
    const from = requireSpec(draft.value!.spec)
    Object.assign(own, {
      shape: from.shape,
      name: '',
      d: String(from.d),
      l: String(from.l),
      h: String(from.h),
      perGram: String(from.perGram),
    })
    measuring.value = true
    pressed.value = false
  } else draft.value!.spec = id
}
/** Takes the size that was measured, if it can be read. */
async function keepSize() {
  pressed.value = true
  if (Object.keys(ownTrouble.value).length > 0) return
  draft.value!.spec = ownSpecId(ownSize.value)
  measuring.value = false
  await guarded(() => shelf.keep([{ kind: 'spec', name: ownSize.value.name, spec: draft.value!.spec }]))
}

// ---- the box: beads that are kept for every piece
function guarded(work: () => Promise<unknown>) {
  says.value = ''
  return saying(work, (text) => {
    says.value = text
  })
}
watch(
  () => props.number,
  (n) => {
    if (n !== null) {
      measuring.value = false
      void guarded(() => shelf.fetch())
    }
  },
  { immediate: true },
)
const look = computed(() => {
  const { name, spec, colour, finish } = draft.value!
  return { name: name.trim() || `Bead ${draft.value!.letter}`, spec, colour: colour.toLowerCase(), finish }
})
const inBox = computed(() => draft.value !== null && shelf.beads.some((i) => sameLook(i.value, look.value)))
const keepInBox = () => guarded(() => shelf.keep([{ kind: 'bead', ...look.value }]))

// ---- what stands in for it
const near = computed(() =>
  draft.value
    ? nearestInColour(
        look.value,
        [...shelf.beads.map((i) => i.value), ...props.piece.tray.filter((b) => b.number !== draft.value!.number)],
        4,
      )
    : [],
)
const runs = computed(() => (draft.value ? runsInsteadOf(draft.value.spec).slice(0, 4) : []))
const finishes = FINISHES.map((f) => ({ value: f, title: f }))

async function save() {
  // A size that was typed in is meant, whether or not its own button was pressed.
  if (measuring.value) await keepSize()
  const bead = draft.value
  if (!bead || measuring.value) return
  const named = { ...bead, name: bead.name.trim() || `Bead ${bead.letter}`, colour: bead.colour.toLowerCase() }
  if (props.number === 'new')
    emit(
      'steps',
      `Add ${named.name}`,
      [{ type: 'tray', do: 'insert', at: props.piece.tray.length, bead: named }],
      named.number,
    )
  else {
    const old = props.piece.tray.find((b) => b.number === bead.number)!
    const fields = ['name', 'colour', 'finish', 'spec', 'glyph'] as const
    emit(
      'steps',
      `Change ${named.name}`,
      fields.filter((f) => old[f] !== named[f]).map((f) => setStep(props.piece, ['tray', bead.number, f], named[f])),
    )
  }
  emit('close')
}

const swapTo = ref<number | null>(null)
const others = computed(() =>
  props.piece.tray
    .filter((b) => b.number !== props.number)
    .map((b) => ({ value: b.number, title: `${b.letter} ${b.name}` })),
)

/** Takes the bead off the tray; where it is used, another takes its place first. */
function remove() {
  const number = props.number
  if (typeof number !== 'number') return
  const at = props.piece.tray.findIndex((b) => b.number === number)
  const swaps =
    used.value > 0 && swapTo.value !== null
      ? props.piece.parts.flatMap((p) => swapSteps(p, number, swapTo.value!))
      : []
  emit(
    'steps',
    `Take ${props.piece.tray[at]!.name} off`,
    [...swaps, { type: 'tray', do: 'remove', at, bead: props.piece.tray[at]! }],
    swapTo.value ?? others.value[0]?.value,
  )
  emit('close')
}
</script>

<template>
  <VDialog
    :model-value="number !== null"
    max-width="520"
    aria-label="Bead"
    @update:model-value="(v) => !v && emit('close')"
  >
    <ReadForm v-if="draft" class="sheet form" aria-label="Bead" @done="save">
      <h2>{{ number === 'new' ? 'Add a bead' : `Bead ${draft.letter}` }}</h2>
      <VTextField v-model="draft.name" label="Name" maxlength="60" autofocus placeholder="Your own name for it" />
      <div class="pair">
        <label class="colour">Colour <input v-model="draft.colour" type="color" /></label>
        <VSelect v-model="draft.finish" :items="finishes" label="Finish" />
      </div>
      <div v-if="shelf.beads.length" class="box" role="group" aria-label="From my box">
        <span class="quiet">From my box</span>
        <button
          v-for="i in shelf.beads"
          :key="i.id"
          type="button"
          :title="`${i.value.name}, ${i.value.finish}, ${requireSpec(i.value.spec).name}`"
          @click="
            Object.assign(draft, {
              name: i.value.name,
              colour: i.value.colour,
              finish: i.value.finish,
              spec: i.value.spec,
            })
          "
        >
          <span class="swatch" :style="{ '--bead': i.value.colour }" />{{ i.value.name }}
        </button>
      </div>
      <VSelect
        :model-value="draft.spec"
        :items="specs"
        label="Shape and size"
        :hint="SHAPE_FACTS[requireSpec(draft.spec).shape]"
        persistent-hint
        @update:model-value="chooseSpec"
      />
      <fieldset v-if="measuring" class="measure">
        <legend>A size of my own: measure ten in a row and divide</legend>
        <VTextField
          v-model="own.name"
          label="Its name"
          maxlength="40"
          :error-messages="ownTrouble.name && (pressed || own.name !== '') ? [ownTrouble.name] : []"
        />
        <VSelect v-model="own.shape" :items="shapes" label="Shape" />
        <div class="with">
          <VTextField
            v-model="own.d"
            label="Across, mm"
            inputmode="decimal"
            autocomplete="off"
            :error-messages="ownTrouble.d ? [ownTrouble.d] : []"
            :aria-invalid="ownTrouble.d ? 'true' : undefined"
          /><CaliperButton
            label="Across"
            @measured="
              (mm) => {
                own.d = String(mm)
              }
            "
          />
        </div>
        <div class="with">
          <VTextField
            v-model="own.l"
            label="Along the hole, mm"
            inputmode="decimal"
            autocomplete="off"
            :error-messages="ownTrouble.l ? [ownTrouble.l] : []"
            :aria-invalid="ownTrouble.l ? 'true' : undefined"
          /><CaliperButton
            label="Along the hole"
            @measured="
              (mm) => {
                own.l = String(mm)
              }
            "
          />
        </div>
        <div class="with">
          <VTextField
            v-model="own.h"
            label="Hole, mm"
            inputmode="decimal"
            autocomplete="off"
            :error-messages="ownTrouble.h ? [ownTrouble.h] : []"
            :aria-invalid="ownTrouble.h ? 'true' : undefined"
          /><CaliperButton
            label="Hole"
            @measured="
              (mm) => {
                own.h = String(mm)
              }
            "
          />
        </div>
        <VTextField
          v-model="own.perGram"
          label="Beads in a gram"
          inputmode="decimal"
          autocomplete="off"
          :error-messages="ownTrouble.perGram ? [ownTrouble.perGram] : []"
          :aria-invalid="ownTrouble.perGram ? 'true' : undefined"
        />
        <button type="button" class="button" @click="keepSize">Use this size</button
        ><button type="button" class="button plain" @click="measuring = false">Not now</button>
      </fieldset>
      <details v-if="near.length || runs.length" class="instead">
        <summary>What stands in for it</summary>
        <ul>
          <li v-for="n in near" :key="`${n.bead.name}${n.bead.colour}`">
            <span class="swatch" :style="{ '--bead': n.bead.colour }" /> {{ n.bead.name }}, {{ n.bead.finish }}
            <span class="quiet">same size, ΔE {{ showNumber(n.deltaE, 1) }}</span>
          </li>
          <li v-for="r in runs" :key="r.spec.id">
            {{ r.count }} × {{ r.spec.name }} for {{ r.forCount === 1 ? 'one' : r.forCount }}
            <span class="quiet"
              >{{
                Math.abs(r.lengthErrorMm) < 0.05
                  ? 'same length'
                  : `${showNumber(Math.abs(r.lengthErrorMm), 1)} mm ${r.lengthErrorMm > 0 ? 'longer' : 'shorter'}`
              }}, {{ showNumber(Math.abs(r.gramsMore * 100), 1) }} g {{ r.gramsMore > 0 ? 'more' : 'less' }} a
              hundred</span
            >
          </li>
        </ul>
      </details>
      <fieldset>
        <legend>Glyph, for black-and-white charts</legend>
        <div class="glyphs">
          <label v-for="g in GLYPH_IDS" :key="g" :title="g" :class="{ on: draft.glyph === g }">
            <input v-model="draft.glyph" type="radio" name="glyph" :value="g as GlyphId" class="hidden" /><span
              class="hidden"
              >{{ g }}</span
            >
            <svg viewBox="0 0 1 1" aria-hidden="true"><GlyphMark :glyph="g" ink="currentColor" /></svg>
          </label>
        </div>
      </fieldset>
      <div v-if="number !== 'new' && piece.tray.length > 1" class="off">
        <VSelect
          v-if="used > 0"
          v-model="swapTo"
          :items="others"
          :label="`Used ${used} times: lay in its place`"
          density="compact"
        />
        <button class="button plain" type="button" :disabled="used > 0 && swapTo === null" @click="remove">
          Take it off the tray
        </button>
      </div>
      <p v-if="says" class="says" role="alert">{{ says }}</p>
      <div class="ends">
        <button v-if="!inBox" class="button plain keep" type="button" @click="keepInBox">Keep in my box</button
        ><span v-else class="quiet keep">In your box</span>
        <button class="button" type="button" @click="emit('close')">Leave it</button>
        <button class="button main" type="submit">{{ number === 'new' ? 'Add' : 'Keep' }}</button>
      </div>
    </ReadForm>
  </VDialog>
</template>

<style scoped>
.with {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 8px;
  align-items: start;
}
.form {
  display: grid;
  gap: 16px;
  box-shadow: var(--shadow);
  max-height: 90dvh;
  overflow: auto;
}
.pair {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 16px;
  align-items: center;
}
.colour {
  display: flex;
  gap: 10px;
  align-items: center;
  color: var(--soft);
}
input[type='color'] {
  width: 64px;
  height: 48px;
  border: 1.5px solid var(--edge);
  border-radius: 10px;
  background: var(--paper);
  padding: 3px;
  cursor: pointer;
}
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
}
legend {
  color: var(--soft);
  font-size: 14px;
  padding: 0 0 6px;
}
.glyphs {
  display: grid;
  grid-template-columns: repeat(auto-fill, 40px);
  gap: 4px;
}
.glyphs label {
  width: 40px;
  height: 40px;
  display: grid;
  place-items: center;
  border-radius: 8px;
  cursor: pointer;
  color: var(--ink);
}
.glyphs label:hover {
  background: var(--ground);
}
.glyphs .on {
  background: var(--dark);
  color: var(--dark-ink);
}
.glyphs label:has(:focus-visible) {
  outline: 2px solid var(--madder);
}
.glyphs svg {
  width: 26px;
  height: 26px;
}
.ends {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  justify-content: flex-end;
  align-items: center;
}
.keep {
  margin-inline-end: auto;
}
.box {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  max-height: 120px;
  overflow-y: auto;
  align-items: center;
}
.box .quiet {
  width: 100%;
}
.box button {
  display: inline-flex;
  align-items: center;
  gap: 6px;
  min-height: 36px;
  padding: 0 10px;
  border: 0;
  border-radius: 9px;
  background: var(--ground);
  color: var(--ink);
  font: 500 14px/1 var(--text);
  cursor: pointer;
}
.measure {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
}
.instead summary {
  cursor: pointer;
  color: var(--verdigris);
  min-height: 30px;
}
.instead ul {
  list-style: none;
  margin: 4px 0 0;
  padding: 0;
  display: grid;
  gap: 6px;
  font-size: 14.5px;
}
.says {
  color: var(--marigold);
}
.off {
  display: grid;
  gap: 8px;
  justify-items: start;
}
.off > :first-child {
  width: 100%;
}
.off .button {
  padding: 0 4px;
  color: var(--verdigris);
  text-decoration: underline;
}
</style>
