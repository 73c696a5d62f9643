<script setup lang="ts">
import { computed } from 'vue'
import { closureName, closureOf, usualClosure, type Closure, type ClosureKind } from '#core/wear/closure'
import { boundsOf } from '#core/bounds'
import { fitKindOf, type FitKind } from '#core/wear/kind'
import { closureSchema } from '#core/piece/schema'
import { useShelf } from '../stores/shelf'
import LengthField from './LengthField.vue'
import CaliperButton from './CaliperButton.vue'

/** The closure: one of the catalogue or of the box, its length closed, and how it can be let out. */
const props = defineProps<{ kind: FitKind; closure: Closure }>()
const emit = defineEmits<{ change: [closure: Closure] }>()
const shelf = useShelf()

/** Whether it is what something hangs by, rather than what closes a round. */
const hangs = computed(() => fitKindOf(props.kind).hangs === true)
const LOOPS = [
  { value: 'side', title: 'on its edge, from the front' },
  { value: 'front', title: 'round, from the front' },
]

const OWN = 'box:'
const own = computed(() =>
  shelf.findings.filter((f) => f.value.closure && fitKindOf(props.kind).closures.includes(f.value.closure.kind)),
)
const items = computed(() => [
  ...own.value.map((f) => ({ value: OWN + f.id, title: `${f.value.name} (from the box)` })),
  ...fitKindOf(props.kind).closures.map((kind) => ({ value: kind as string, title: closureOf(kind).name })),
])
const chosen = computed(() => {
  const mine = own.value.find(
    (f) => f.value.name === props.closure.name && f.value.closure!.kind === props.closure.kind,
  )
  return mine ? OWN + mine.id : props.closure.kind
})
function choose(value: string) {
  const mine = own.value.find((f) => OWN + f.id === value)
  const { extenderMm, openings, openingStepMm } = props.closure
  if (mine)
    emit('change', {
      ...usualClosure(mine.value.closure!.kind),
      name: mine.value.name,
      lengthMm: mine.value.closure!.lengthMm,
      extenderMm,
      openings,
      openingStepMm,
    })
  else {
    const opens = !hangs.value && !['none', 'elastic'].includes(value)
    emit(
      'change',
      opens
        ? { ...usualClosure(value as ClosureKind), extenderMm, openings, openingStepMm }
        : usualClosure(value as ClosureKind),
    )
  }
}
const bounds = (field: keyof Closure) => boundsOf(closureSchema, field)
const set = (more: Partial<Closure>) => emit('change', { ...props.closure, ...more })
const entry = computed(() => closureOf(props.closure.kind))
const opens = computed(() => !hangs.value && !['none', 'elastic'].includes(props.closure.kind))
const let1 = computed(() => props.closure.extenderMm > 0 || props.closure.openings > 1 || props.closure.overlapMm > 0)
</script>

<template>
  <div class="closure">
    <VSelect
      :model-value="chosen"
      :items="items"
      label="Closure"
      :hint="entry.note"
      persistent-hint
      @update:model-value="choose"
    />
    <template v-if="closure.kind !== 'none' && closure.kind !== 'elastic'">
      <div class="row">
        <LengthField
          :model-value="closure.lengthMm"
          :label="opens ? 'Its length, closed' : 'From the loop to the beadwork'"
          :bounds="bounds('lengthMm')"
          @update:model-value="(mm) => set({ lengthMm: mm })"
        />
        <CaliperButton
          :label="`Length of ${closureName(closure).toLowerCase()}`"
          @measured="(mm) => set({ lengthMm: mm })"
        />
      </div>
      <VTextField
        v-if="closure.kind === 'own'"
        :model-value="closure.name"
        label="What it is"
        maxlength="60"
        @change="(e: Event) => set({ name: (e.target as HTMLInputElement).value.trim() })"
      />
    </template>
    <VSelect
      v-if="hangs"
      :model-value="closure.loop"
      :items="LOOPS"
      label="Its loop is seen"
      hint="Which way what hangs faces follows from it."
      persistent-hint
      @update:model-value="(loop: 'side' | 'front') => set({ loop })"
    />
    <details v-if="opens" :open="let1 || undefined">
      <summary>Chain, more openings, overlap</summary>
      <div class="more">
        <LengthField
          :model-value="closure.extenderMm"
          label="Chain to let it out"
          :bounds="bounds('extenderMm')"
          hint="Usually 25–50 mm; 0 for none."
          @update:model-value="(mm) => set({ extenderMm: mm })"
        />
        <VSelect
          :model-value="closure.openings"
          :items="[1, 2, 3, 4, 5, 6]"
          label="Buttons or rings"
          @update:model-value="(n: number) => set({ openings: n })"
        />
        <LengthField
          v-if="closure.openings > 1"
          :model-value="closure.openingStepMm"
          label="From one to the next"
          :bounds="bounds('openingStepMm')"
          @update:model-value="(mm) => set({ openingStepMm: mm })"
        />
        <LengthField
          :model-value="closure.overlapMm"
          label="Band over band"
          :bounds="bounds('overlapMm')"
          hint="Beadwork that lies over beadwork when closed."
          @update:model-value="(mm) => set({ overlapMm: mm })"
        />
      </div>
    </details>
  </div>
</template>

<style scoped>
.closure,
.more {
  display: grid;
  gap: 16px;
}
.row {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 8px;
  align-items: start;
}
.more {
  padding-top: 12px;
  grid-template-columns: 1fr 1fr;
  align-items: start;
}
summary {
  cursor: pointer;
  color: var(--verdigris);
  min-height: 32px;
}
</style>
