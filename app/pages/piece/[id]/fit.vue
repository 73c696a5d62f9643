<script setup lang="ts">
import { computed, ref } from 'vue'
import { EASES, fitBracelet } from '#core/fit/bracelet'
import { extentOf } from '#core/fit/extent'
import { choiceSteps, fitChoices, type Choice } from '#core/fit/choices'
import { CLOSURES, closureOf, type ClosureKind } from '#core/fit/closure'
import { FEEL_WORDS } from '#core/fit/says'
import { setStep } from '#core/piece/edit'
import { columnsOf, numberAt, techniqueOf, workOf } from '#core/piece/piece'
import { columnsWanted, conversionNotes, specSteps, stitchSteps, widthSteps } from '#core/piece/recast'
import { TECHNIQUES } from '#core/technique/registry'
import type { Step } from '#core/piece/step'
import { showNumber } from '#core/units/length'
import { useLengths } from '../../../composables/lengths'
import { useSpecs } from '../../../composables/specs'
import { usePiece } from '../../../stores/piece'
import FitAnswer from '../../../components/FitAnswer.vue'
import StitchSettings from '../../../components/StitchSettings.vue'
import LengthField from '../../../components/LengthField.vue'

const store = usePiece()
const { length } = useLengths()
const piece = computed(() => store.piece!)
const part = computed(() => piece.value.parts[0]!)
const fit = computed(() => fitBracelet(piece.value.fit, part.value, undefined, piece.value.tray))
const choices = computed(() => fitChoices(piece.value.fit, part.value, piece.value.tray))
const extent = computed(() => extentOf(part.value, piece.value.tray))
const problem = ref('')

const commit = (label: string, steps: Step[]) => { problem.value = store.commit(label, steps) ?? '' }
const set = (field: 'wristMm' | 'easeMm' | 'widthMm' | 'wearer', value: number | string) => {
  if (piece.value.fit[field] !== value) commit('Fit', [setStep(piece.value, ['fit', field], value)])
}
const closures = CLOSURES.map(c => ({ value: c.kind, title: c.name }))
const closure = computed(() => closureOf(piece.value.fit.closure.kind))
const stitches = TECHNIQUES.map(t => ({ value: t.id, title: t.name }))
const specs = useSpecs(() => [part.value.spec, ...piece.value.tray.map(b => b.spec)])
/** The bead that new columns are laid in: what lies in the first corner, or the first of the tray. */
const ground = computed(() => numberAt(part.value, 0, 0) || (piece.value.tray[0]?.number ?? 0))
const setting = (key: string, value: string | number | boolean) => {
  if (part.value.settings[key] !== value) commit('How the stitch is worked', [setStep(piece.value, ['parts', part.value.id, 'settings'], { ...part.value.settings, [key]: value })])
}
/** What the last move to another stitch changed. */
const moved = ref<readonly string[]>([])
function moveTo(technique: string) {
  moved.value = conversionNotes(part.value, technique)
  commit('Stitch', stitchSteps(piece.value, part.value, technique, ground.value))
}
const nearest = computed(() => columnsWanted(part.value, piece.value.fit.widthMm))
const widthOf = (columns: number) => techniqueOf(part.value).widthOf({ ...workOf(part.value), columns })
const setNotes = (notes: string) => { if (notes !== piece.value.notes) commit('Notes', [setStep(piece.value, ['notes'], notes)]) }
const setClosure = (kind: ClosureKind, lengthMm = closureOf(kind).lengthMm) => commit('Closure', [setStep(piece.value, ['fit', 'closure'], { kind, lengthMm })])

const take = (choice: Choice) => commit(`Take ${choice.times} repeats`, choiceSteps(piece.value, part.value, choice))
const changeOf = (choice: Choice) => {
  const parts: string[] = []
  const ends = choice.startRows + choice.endRows
  if (ends !== 0) parts.push(`${Math.abs(ends)} plain ${Math.abs(ends) === 1 ? 'row' : 'rows'} ${ends > 0 ? 'more' : 'fewer'} at the ends`)
  if (choice.closure.kind !== piece.value.fit.closure.kind) parts.push(`${closureOf(choice.closure.kind).name.toLowerCase()}, ${length(choice.closure.lengthMm)}`)
  return parts.join(', ') || 'whole repeats'
}
const sign = (mm: number) => (Math.abs(mm) < 0.5 ? 'just right' : `${length(Math.abs(mm), 1)} ${mm > 0 ? 'over' : 'short'}`)
</script>

<template>
  <main class="page">
    <section class="body" aria-labelledby="for-whom">
      <h2 id="for-whom">For whom, and how close</h2>
      <div class="fields">
        <VTextField :model-value="piece.fit.wearer" label="For (optional)" maxlength="60" @change="(e: Event) => set('wearer', (e.target as HTMLInputElement).value.trim())" />
        <LengthField :model-value="piece.fit.wristMm" label="Wrist" :least="80" :most="400" hint="A tape or paper strip flat round the wrist at the bone: snug, not tight, not stretched. Measure twice." @update:model-value="mm => set('wristMm', mm)" />
        <LengthField :model-value="piece.fit.easeMm" label="Room to move" :least="0" :most="60" @update:model-value="mm => set('easeMm', mm)" />
        <div class="eases" role="group" aria-label="Usual room"><button v-for="e in EASES" :key="e.id" type="button" class="button" :aria-pressed="piece.fit.easeMm === e.mm" :class="{ on: piece.fit.easeMm === e.mm }" @click="set('easeMm', e.mm)">{{ e.name }} {{ length(e.mm) }}</button></div>
        <VSelect :model-value="piece.fit.closure.kind" :items="closures" label="Closure" :hint="closure.note" persistent-hint @update:model-value="(k: ClosureKind) => setClosure(k)" />
        <LengthField :model-value="piece.fit.closure.lengthMm" label="Its length, closed" :least="0" :most="80" @update:model-value="mm => setClosure(piece.fit.closure.kind, mm)" />
      </div>
      <h2 class="second">Made how</h2>
      <div class="fields">
        <VSelect :model-value="part.technique" :items="stitches" label="Stitch" @update:model-value="moveTo" />
        <ul v-if="moved.length" class="notes" role="status"><li v-for="note in moved" :key="note">{{ note }}</li></ul>
        <StitchSettings :technique="part.technique" :settings="part.settings" @change="setting" />
        <VSelect :model-value="part.spec" :items="specs" label="Bead" hint="The pattern stays bead for bead; its size follows." persistent-hint @update:model-value="(v: string) => commit('Bead size', specSteps(piece, part, v))" />
        <LengthField :model-value="piece.fit.widthMm" label="Width wanted" :least="1" :most="400" @update:model-value="mm => set('widthMm', mm)" />
        <p v-if="nearest !== columnsOf(part)" class="width">
          {{ nearest }} across would be nearest, {{ length(widthOf(nearest), 1) }} wide.
          <button type="button" class="link" @click="commit('Width', widthSteps(part, nearest, ground))">Make it {{ nearest }} across</button>
        </p>
        <VTextarea :model-value="piece.notes" label="Notes" rows="2" auto-grow maxlength="4000" @change="(e: Event) => setNotes((e.target as HTMLTextAreaElement).value)" />
      </div>
      <p v-if="closure.caution" class="caution">{{ closure.caution }}</p>
      <p v-if="problem" class="caution" role="alert">{{ problem }}</p>
    </section>

    <section class="result" aria-labelledby="closes">
      <h2 id="closes">Will it close?</h2>
      <FitAnswer :piece="piece" :part="part" />
      <details class="why" open>
        <summary>How this is reckoned</summary>
        <dl>
          <dt>Inside of the bracelet</dt><dd>wrist {{ length(piece.fit.wristMm, 1) }} + room {{ length(piece.fit.easeMm, 1) }} = <b>{{ length(fit.wantedMm, 1) }}</b></dd>
          <dt>Through its middle</dt><dd>a band {{ length(fit.thicknessMm, 1) }} thick bends about its middle: + π × {{ showNumber(fit.thicknessMm, 1) }} = {{ length(fit.wantedMm + Math.PI * fit.thicknessMm, 1) }}</dd>
          <dt>Beadwork wanted</dt><dd>less the closure, {{ length(piece.fit.closure.lengthMm, 1) }} = <b>{{ length(fit.targetMm, 1) }}</b></dd>
          <dt>Beadwork planned</dt><dd>{{ extent.lengthFormula }} = <b>{{ length(fit.beadworkMm.nominal, 1) }}</b>; from {{ length(fit.beadworkMm.least, 1) }} to {{ length(fit.beadworkMm.most, 1) }}, because beads and hands differ (± 5 %)</dd>
          <dt>Width</dt><dd>{{ extent.widthFormula }} = {{ length(extent.widthMm.nominal, 1) }}</dd>
          <dt>Closes at</dt><dd>beadwork and closure, less π × {{ showNumber(fit.thicknessMm, 1) }} = <b>{{ length(fit.insideMm.nominal, 1) }}</b> round the inside</dd>
        </dl>
      </details>
    </section>

    <section class="choices" aria-labelledby="choices">
      <h2 id="choices">What comes near</h2>
      <ul>
        <li v-for="c in choices" :key="c.id" :class="{ current: c.current }">
          <span class="times"><span class="figure">{{ c.times }}</span><span class="quiet">{{ c.times === 1 ? 'repeat' : 'repeats' }}</span></span>
          <span class="what"><b>{{ changeOf(c) }}</b><span>{{ length(c.fit.beadworkMm.nominal) }} of beadwork, closes at {{ length(c.fit.insideMm.nominal) }} · {{ sign(c.fit.differenceMm) }}</span><span class="quiet">{{ FEEL_WORDS[c.fit.feel].replace(/^(Yes|No|Barely)[,:] /, '') }} · {{ showNumber(c.beads) }} beads<template v-if="c.beadsMore"> ({{ c.beadsMore > 0 ? '+' : '−' }}{{ Math.abs(c.beadsMore) }})</template></span></span>
          <span v-if="c.current" class="chosen">As planned</span>
          <button v-else type="button" class="button" :aria-label="`Take ${c.times} repeats, ${changeOf(c)}`" @click="take(c)">Take this</button>
        </li>
      </ul>
    </section>
  </main>
</template>

<style scoped>
.page { padding: 12px 24px 32px; display: grid; grid-template-columns: minmax(260px, 340px) minmax(280px, 1fr) minmax(360px, 1.2fr); gap: 28px; align-items: start; max-width: 1480px; margin: 0 auto; width: 100%; }
section { display: grid; gap: 16px; }
.fields { display: grid; gap: 16px; }
.eases { display: grid; grid-template-columns: repeat(3, 1fr); gap: 6px; margin-top: -6px; }
.eases .button { padding: 0 4px; font-size: 14px; font-weight: 500; }
.on { background: var(--dark); color: var(--dark-ink); box-shadow: none; }
.on:hover { background: var(--dark); }

.second { margin-top: 8px; }
ul.notes { font-size: 14px; color: var(--soft); gap: 4px; }
.notes li { display: list-item; list-style: disc inside; padding: 0; border: 0; }
.width { font-size: 14.5px; margin-top: -8px; }
.caution { background: var(--marigold-wash); color: var(--marigold); padding: 12px 14px; border-radius: var(--round-in); font-size: 14.5px; }
.why summary { cursor: pointer; color: var(--verdigris); min-height: 32px; }
dl { display: grid; gap: 2px; margin: 8px 0 0; font-size: 14.5px; }
dt { color: var(--soft); }
dd { margin: 0 0 8px; }
ul { list-style: none; margin: 0; padding: 0; display: grid; }
li { display: grid; grid-template-columns: 64px 1fr auto; gap: 14px; align-items: center; padding: 12px 0; border-top: 1px solid var(--line); }
.times { display: grid; justify-items: center; gap: 3px; }
.times .figure { font-size: 30px; }
.what { display: grid; gap: 2px; font-size: 14.5px; }
.current .times .figure { color: var(--verdigris); }
.chosen { color: var(--verdigris); font-weight: 700; font-size: 14.5px; }
.result :deep(.answer strong) { font-size: 26px; }
@media (width <= 1100px) { .page { grid-template-columns: minmax(0, 1fr) minmax(0, 1fr); } .choices { grid-column: 1 / -1; } }
@media (width <= 720px) { .page { grid-template-columns: minmax(0, 1fr); padding: 8px 14px 24px; gap: 22px; } .result { order: -1; } li { grid-template-columns: 52px 1fr; } li > :last-child { grid-column: 2; justify-self: start; } }
</style>
