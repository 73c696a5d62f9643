<script setup lang="ts">
import { ref, watch } from 'vue'
import { FINISHES } from '#core/bead/bead'
import { closureOf, CLOSURES, type ClosureKind } from '#core/wear/closure'
import { boundsOf } from '#core/bounds'
import {
  shelfBeadSchema,
  shelfFindingSchema,
  shelfThreadSchema,
  type ShelfBead,
  type ShelfFinding,
  type ShelfThread,
  type Stock,
} from '#core/shelf/shelf'
import { THREADS } from '#core/thread/catalogue'
import { useSpecs } from '../composables/specs'
import CaliperButton from './CaliperButton.vue'
import LengthField from './LengthField.vue'
import MoneyField from './MoneyField.vue'
import NumberField from './NumberField.vue'
import ReadForm from './ReadForm.vue'

/** A thing of the box: beads, thread or findings, with how much there is and what it costs. */
const props = defineProps<{ value: Stock | null; currency: string; fresh: boolean }>()
const emit = defineEmits<{ close: []; keep: [value: Stock] }>()
type Draft<T> = { -readonly [K in keyof T]: T[K] }
const draft = ref<Draft<ShelfBead> | Draft<ShelfThread> | Draft<ShelfFinding> | null>(null)
watch(
  () => props.value,
  (value) => {
    draft.value = value ? { ...value } : null
    says.value = ''
  },
  { immediate: false },
)
const says = ref('')
const specs = useSpecs(() => (draft.value?.kind === 'bead' ? [draft.value.spec] : []))
const finishes = FINISHES.map((f) => ({ value: f, title: f }))
const threads = THREADS.map((t) => ({ value: t.id, title: t.name }))
const closures = [
  { value: '', title: 'no closure' },
  ...CLOSURES.filter((c) => c.kind !== 'none' && c.kind !== 'elastic').map((c) => ({
    value: c.kind as string,
    title: c.name,
  })),
]
const setClosure = (kind: string) => {
  if (draft.value?.kind === 'finding')
    draft.value.closure =
      kind === '' ? null : { kind: kind as ClosureKind, lengthMm: closureOf(kind as ClosureKind).lengthMm }
}
function keep() {
  if (!draft.value) return
  if (draft.value.name.trim() === '') {
    says.value = 'Give it a name that you know it by.'
    return
  }
  emit('keep', { ...draft.value, name: draft.value.name.trim() } as Stock)
}
</script>

<template>
  <VDialog
    :model-value="value !== null"
    max-width="520"
    aria-label="In the box"
    @update:model-value="(v) => !v && emit('close')"
  >
    <ReadForm v-if="draft" class="sheet stock" aria-label="In the box" @done="keep">
      <h2>
        {{
          fresh
            ? { bead: 'Beads for the box', thread: 'Thread for the box', finding: 'A finding for the box' }[draft.kind]
            : draft.name
        }}
      </h2>
      <VTextField v-model="draft.name" label="Name" maxlength="60" autofocus />
      <template v-if="draft.kind === 'bead'">
        <VSelect v-model="draft.spec" :items="specs" label="Shape and size" />
        <div class="row">
          <label class="colour">Colour <input v-model="draft.colour" type="color" /></label
          ><VSelect v-model="draft.finish" :items="finishes" label="Finish" />
        </div>
        <NumberField
          v-model="draft.grams"
          label="There are, g"
          :bounds="boundsOf(shelfBeadSchema, 'grams')"
          hint="Without the tube. Weighing does it for you."
        />
        <div class="row">
          <MoneyField v-model="draft.price" :currency="currency" label="Price" /><VSelect
            v-model="draft.packGrams"
            :items="[5, 10, 28, 50, 100, 500]"
            label="for so many grams"
          />
        </div>
      </template>
      <template v-else-if="draft.kind === 'thread'">
        <VSelect v-model="draft.thread" :items="threads" label="Thread" />
        <LengthField
          v-model="draft.lengthMm"
          label="There is"
          :bounds="boundsOf(shelfThreadSchema, 'lengthMm')"
          hint="In metres, like 45 m."
        />
        <div class="row">
          <MoneyField v-model="draft.price" :currency="currency" label="Price of a spool" /><LengthField
            v-model="draft.spoolMm"
            label="Spool"
            :least="1000"
            :most="100000"
          />
        </div>
      </template>
      <template v-else>
        <VSelect
          :model-value="draft.closure?.kind ?? ''"
          :items="closures"
          label="Closes as"
          @update:model-value="setClosure"
        />
        <div v-if="draft.closure" class="with">
          <LengthField
            v-model="draft.closure.lengthMm"
            label="Its length, closed"
            :bounds="boundsOf(shelfFindingSchema, 'closure', 'lengthMm')"
          /><CaliperButton
            label="Its length"
            @measured="
              (mm) => {
                if (draft?.kind === 'finding' && draft.closure) draft.closure = { ...draft.closure, lengthMm: mm }
              }
            "
          />
        </div>
        <div class="row">
          <NumberField
            v-model="draft.count"
            label="Pieces"
            :bounds="boundsOf(shelfFindingSchema, 'count')"
          /><MoneyField v-model="draft.price" :currency="currency" label="Price of one" />
        </div>
      </template>
      <p v-if="says" class="says" role="alert">{{ says }}</p>
      <div class="acts">
        <button type="submit" class="button main">{{ fresh ? 'Put it in' : 'Keep' }}</button><button
          type="button"
          class="button plain"
          @click="emit('close')"
        >
          Not now
        </button>
      </div>
    </ReadForm>
  </VDialog>
</template>

<style scoped>
.stock {
  display: grid;
  gap: 16px;
}
.row {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
  align-items: start;
}
.with {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 8px;
  align-items: start;
}
.colour {
  display: flex;
  gap: 12px;
  align-items: center;
  min-height: 48px;
}
.colour input {
  width: 56px;
  height: 40px;
  border: 0;
  background: none;
  padding: 0;
}
.acts {
  display: flex;
  gap: 12px;
}
.says {
  color: var(--marigold);
}
</style>
