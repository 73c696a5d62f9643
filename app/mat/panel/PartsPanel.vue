<script setup lang="ts">
import { computed, ref } from 'vue'
import { shortened } from '#core/units/text'
import { requireSpec } from '#core/bead/spec'
import { setStep } from '#core/piece/edit'
import { isMade } from '#core/piece/nature'
import { columnsOf, fittedPart, rowsOf, techniqueOf, type Part, type Piece } from '#core/piece/piece'
import { addPartSteps, asLinesSteps, quarterTurnSteps, removePartSteps, settingSteps } from '#core/piece/recast'
import { LIMITS } from '#core/piece/schema'
import type { Step } from '#core/piece/step'
import { tallyPart, totalOf } from '#core/tally/tally'
import { requireTechnique, TECHNIQUES } from '#core/technique/registry'
import { useAccount } from '../../stores/account'
import { useMat } from '../../stores/mat'
import { hangableOn, jointWords } from '#core/piece/joint'
import { useLengths } from '../../composables/lengths'
import StitchSettings from '../../components/StitchSettings.vue'
import JointFields from './JointFields.vue'
import MatPanel from './MatPanel.vue'

/**
 * The parts of the piece: which is in hand, what each hangs on, new ones, and a quarter turn between peyote and brick.
 */
const props = defineProps<{ piece: Piece; part: Part }>()
const emit = defineEmits<{ steps: [label: string, steps: readonly Step[], part?: string]; says: [text: string] }>()
const mat = useMat()
const account = useAccount()
const { length } = useLengths()
const stitch = ref(props.part.technique)
const stitches = TECHNIQUES.map((t) => ({ value: t.id, title: t.name }))

function add() {
  if (props.piece.parts.length >= LIMITS.parts) {
    emit('says', `A piece has at most ${LIMITS.parts} parts.`)
    return
  }
  const steps = addPartSteps(
    props.piece,
    `Part ${props.piece.parts.length + 1}`,
    stitch.value,
    props.part.spec,
    account.habit,
  )
  const made = steps.find((s) => s.type === 'part')!
  emit('steps', 'Add a part', steps, made.type === 'part' ? made.value.id : undefined)
}
function remove(part: Part) {
  emit(
    'steps',
    `Take ${part.name} off`,
    removePartSteps(props.piece, part.id),
    props.piece.parts.find((p) => p.id !== part.id)?.id,
  )
}
function rename(part: Part, name: string) {
  const text = shortened(name.trim(), 60)
  if (text && text !== part.name) emit('steps', 'Rename', [setStep(props.piece, ['parts', part.id, 'name'], text)])
}
/** The part that is fitted has its settings on Fit; the others have them here. */
function setting(key: string, value: string | number | boolean) {
  const settings = { ...props.part.settings, [key]: value }
  emit('steps', 'How it is worked', settingSteps(props.piece, props.part, settings, mat.number))
}
function turn() {
  const steps = quarterTurnSteps(props.piece, props.part)
  if (!steps) {
    emit(
      'says',
      'A quarter turn goes between peyote and brick, up to 500 rows. This part cannot be turned without losing beads.',
    )
    return
  }
  const made = steps[0]!
  emit('steps', 'Quarter turn', steps, made.type === 'part' ? made.value.id : undefined)
  emit('says', 'Turned by a quarter: every bead kept, its columns are rows now.')
}
const lined = computed(() => techniqueOf(props.part).asLines)
function toLines() {
  const steps = asLinesSteps(props.piece, props.part)
  if (!steps) {
    emit('says', 'This part has more rows than can be worked so. Make two parts of it.')
    return
  }
  const made = steps[0]!
  emit('steps', lined.value!.act, steps, made.type === 'part' ? made.value.id : undefined)
  emit('says', `${requireTechnique(lined.value!.technique).name}: every row kept, bead for bead.`)
}
</script>

<template>
  <MatPanel title="Parts" @close="mat.panel = null">
    <ul>
      <li v-for="p in piece.parts" :key="p.id" :class="{ on: p.id === part.id }">
        <input
          :value="p.name"
          :aria-label="`Name of ${p.name}`"
          maxlength="60"
          @change="(e) => rename(p, (e.target as HTMLInputElement).value)"
        />
        <span class="quiet"
          >{{ techniqueOf(p).name
          }}<template v-if="isMade(p)">
            · {{ columnsOf(p) }} × {{ rowsOf(p) }} · {{ totalOf(tallyPart(p)) }} ×
            {{ requireSpec(p.spec).name }}</template
          ></span
        >
        <span v-if="p.on" class="hangs">{{ jointWords(piece.parts, p, (mm) => length(mm)) }}</span>
        <span class="acts">
          <button
            v-if="p.id !== part.id"
            type="button"
            class="link"
            :aria-label="`Take it in hand: ${p.name}`"
            @click="mat.part = p.id"
          >
            Take it in hand</button
          ><b v-else>In hand</b>
          <button
            v-if="piece.parts.length > 1"
            type="button"
            class="link"
            :aria-label="`Take off: ${p.name}`"
            @click="remove(p)"
          >
            Take off
          </button>
        </span>
      </li>
    </ul>
    <JointFields
      v-if="piece.parts.length > 1 && (part.on || hangableOn(piece.parts, part).length > 0)"
      :key="part.id"
      :piece="piece"
      :part="part"
      @steps="(label, steps) => emit('steps', label, steps)"
    />
    <fieldset v-if="fittedPart(piece).id !== part.id && techniqueOf(part).fields.length" class="own">
      <legend>How {{ part.name }} is {{ isMade(part) ? 'worked' : 'made' }}</legend>
      <StitchSettings :technique="part.technique" :settings="part.settings" @change="setting" />
    </fieldset>
    <VAutocomplete v-model="stitch" :items="stitches" label="Another part, in" density="compact" auto-select-first />
    <button type="button" class="button" @click="add">Add the part</button>
    <button type="button" class="button" @click="turn">Turn by a quarter</button>
    <button v-if="lined" type="button" class="button" @click="toLines">{{ lined.act }}</button>
    <p class="quiet">
      Peyote and brick are the same lattice turned by a quarter: no bead is lost. To move to another stitch, see Fit.
    </p>
  </MatPanel>
</template>

<style scoped>
.own {
  border: 0;
  border-bottom: 1px solid var(--line);
  margin: 0;
  padding: 0 0 12px;
  display: grid;
  gap: 12px;
}
.own legend {
  font: 650 15px/1.3 var(--title);
  padding: 0 0 8px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 10px;
}
li {
  display: grid;
  gap: 4px;
  padding-inline-start: 10px;
  border-inline-start: 3px solid var(--line);
}
.on {
  border-color: var(--madder);
}
input {
  border: 0;
  background: none;
  color: var(--ink);
  font: 650 16px/1.3 var(--title);
  padding: 4px 0;
  min-width: 0;
  width: 100%;
  border-radius: 4px;
}
input:hover {
  background: var(--ground);
}
.hangs {
  font-size: 14px;
}
.acts {
  display: flex;
  gap: 14px;
  align-items: center;
  font-size: 14px;
}
.link {
  min-height: 32px;
}
</style>
