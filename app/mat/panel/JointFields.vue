<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { boundsOf } from '#core/bounds'
import { hangStep } from '#core/piece/edit'
import { beadsOfSide, hangableOn, parseHoles, sideWords, USUAL_LINK_MM } from '#core/piece/joint'
import { isMade } from '#core/piece/nature'
import { techniqueOf, type Part, type Piece } from '#core/piece/piece'
import { linkSchema, SIDES, type Joint, type Side } from '#core/piece/schema'
import type { Step } from '#core/piece/step'
import LengthField from '../../components/LengthField.vue'

/** What the part in hand hangs on, by which of its sides, and what joins them. */
const props = defineProps<{ piece: Piece; part: Part }>()
const emit = defineEmits<{ steps: [label: string, steps: readonly Step[]] }>()

const NOTHING = ''
const on = computed(() => props.part.on)
const there = computed(() => props.piece.parts.find((p) => p.id === on.value?.part))
const others = computed(() => [
  { value: NOTHING, title: 'Nothing' },
  ...hangableOn(props.piece.parts, props.part).map((p) => ({ value: p.id, title: p.name })),
])
const sides = SIDES.map((value) => ({ value, title: sideWords(value) }))
const LINKS = [
  { value: 'sewn', title: 'Sewn on' },
  { value: 'ring', title: 'A ring' },
  { value: 'chain', title: 'A piece of chain' },
] as const

const hang = (next: Joint | null) => {
  emit('steps', next ? `Hang ${props.part.name}` : `Let ${props.part.name} go`, [
    hangStep(props.piece, props.part, next),
  ])
}
/** What hangs, and what is sewn to a finding, is joined by its first line below the other; else as it was. */
function sidesFor(id: string): Pick<Joint, 'at' | 'by'> {
  const other = props.piece.parts.find((p) => p.id === id)
  const down = techniqueOf(props.part).hangs === true || (other !== undefined && !isMade(other))
  return { at: on.value?.at ?? (down ? 'end' : 'start'), by: on.value?.by ?? (down ? 'start' : 'end') }
}
function choose(id: string) {
  if (id === (on.value?.part ?? NOTHING)) return
  hang(id === NOTHING ? null : { part: id, ...sidesFor(id), holes: [], link: on.value?.link ?? null })
}
const change = (over: Partial<Joint>) => {
  if (on.value) hang({ ...on.value, ...over })
}
type LinkKind = (typeof LINKS)[number]['value']
const link = (kind: LinkKind) => {
  if (kind !== (on.value?.link?.kind ?? 'sewn'))
    change({ link: kind === 'sewn' ? null : { kind, mm: on.value?.link?.mm || USUAL_LINK_MM[kind] } })
}

const apartMm = ref(on.value?.link?.mm ?? 0)
watch(
  () => on.value?.link?.mm,
  (mm) => {
    apartMm.value = mm ?? 0
  },
)
/** A length is taken once it is written, not with every key. */
const takeLength = () => {
  if (on.value?.link && apartMm.value !== on.value.link.mm) change({ link: { ...on.value.link, mm: apartMm.value } })
}
const linkMm = ref(on.value?.link?.linkMm ?? 0)
watch(
  () => on.value?.link?.linkMm,
  (mm) => {
    linkMm.value = mm ?? 0
  },
)
const takeLink = () => {
  const now = on.value?.link
  if (!now || linkMm.value === (now.linkMm ?? 0)) return
  const { linkMm: _, ...rest } = now
  change({ link: linkMm.value > 0 ? { ...rest, linkMm: linkMm.value } : rest })
}

const FIELDS = { VSelect: { density: 'compact', hideDetails: true }, VTextField: { density: 'compact' } }

// ---- beads by number: typed as people write them
const beads = computed(() => (there.value && on.value ? beadsOfSide(there.value, on.value.at) : 0))
const shown = () => on.value?.holes.join(', ') ?? ''
const text = ref(shown())
const read = computed(() => parseHoles(text.value, beads.value))
const says = computed(() => (read.value.ok ? [] : [read.value.problems[0]!.says]))
watch(
  () => on.value?.holes.join(),
  () => {
    text.value = shown()
  },
)
const take = () => {
  if (read.value.ok && read.value.value.join() !== on.value?.holes.join()) change({ holes: read.value.value })
}
</script>

<template>
  <VDefaultsProvider :defaults="FIELDS">
    <fieldset class="joint">
      <legend>{{ part.name }} hangs on</legend>
      <VSelect
        :model-value="on?.part ?? NOTHING"
        :items="others"
        label="Part"
        @update:model-value="(v: string) => choose(v)"
      />
      <template v-if="on && there">
        <div class="two">
          <VSelect
            :model-value="on.at"
            :items="sides"
            label="On its"
            @update:model-value="(v: Side) => v !== on!.at && change({ at: v, holes: [] })"
          />
          <VSelect
            :model-value="on.by"
            :items="sides"
            label="By this part’s"
            @update:model-value="(v: Side) => v !== on!.by && change({ by: v })"
          />
        </div>
        <div class="two">
          <VSelect
            :model-value="on.link?.kind ?? 'sewn'"
            :items="[...LINKS]"
            label="With"
            @update:model-value="(v: string) => link(v as LinkKind)"
          />
          <div v-if="on.link" @focusout="takeLength">
            <LengthField
              v-model="apartMm"
              label="It keeps apart"
              :bounds="boundsOf(linkSchema, 'mm')"
              @keydown.enter="takeLength"
            />
          </div>
        </div>
        <div v-if="on.link?.kind === 'chain'" @focusout="takeLink">
          <LengthField
            v-model="linkMm"
            label="One link of it"
            hint="0 where you do not know. Each link turns what hangs by a quarter."
            :least="0"
            :most="50"
            :decimals="2"
            @keydown.enter="takeLink"
          />
        </div>
        <VTextField
          v-model="text"
          label="At beads"
          :hint="`1 to ${beads}; empty: middle to middle. ${on.link ? 'One link at each.' : ''}`"
          persistent-hint
          :error-messages="says"
          @blur="take"
          @keydown.enter="take"
        />
      </template>
    </fieldset>
  </VDefaultsProvider>
</template>

<style scoped>
.joint {
  border: 0;
  border-block: 1px solid var(--line);
  margin: 0;
  padding: 12px 0;
  display: grid;
  gap: 12px;
}
legend {
  font: 650 15px/1.3 var(--title);
  padding: 0;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
}
</style>
