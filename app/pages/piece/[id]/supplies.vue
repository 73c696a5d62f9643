<script setup lang="ts">
import { computed, ref } from 'vue'
import { requireSpec } from '#core/bead/spec'
import { setStep } from '#core/piece/edit'
import { techniqueOf, type Part } from '#core/piece/piece'
import type { Supply } from '#core/piece/schema'
import { beadsToBuy } from '#core/supply/beads'
import { NEEDLES, requireNeedle, requireThread, THREADS } from '#core/supply/catalogue'
import { holeChecks, pathOf, threadCuts, type SpecHoleCheck } from '#core/supply/thread'
import { showNumber } from '#core/units/length'
import { useLengths } from '../../../composables/lengths'
import { usePiece } from '../../../stores/piece'
import LengthField from '../../../components/LengthField.vue'

const store = usePiece()
const { length, long } = useLengths()
const piece = computed(() => store.piece!)
const supply = computed(() => piece.value.supply)
const buy = computed(() => beadsToBuy(piece.value))
const works = computed(() => piece.value.parts.map((part: Part) => ({ part, cuts: threadCuts(piece.value, part), holes: holeChecks(piece.value, part), path: pathOf(part) })))
const problem = ref('')

function set<K extends keyof Supply>(field: K, value: Supply[K]) {
  if (JSON.stringify(supply.value[field]) !== JSON.stringify(value)) problem.value = store.commit('Supplies', [setStep(piece.value, ['supply', field], value as never)]) ?? ''
}
function setSetting(part: Part, key: string, value: string | number | boolean) {
  if (part.settings[key] !== value) problem.value = store.commit('Stitch', [setStep(piece.value, ['parts', part.id, 'settings', key], value)]) ?? ''
}
const threads = THREADS.map(t => ({ value: t.id, title: `${t.name} · ${t.diameterMm.toFixed(2)} mm` }))
const needles = NEEDLES.map(n => ({ value: n.id, title: `${n.name} · eye ${n.eyeMm.toFixed(2)} mm` }))
const percent = (share: number) => `${showNumber(share * 100)} %`
const setPercent = (field: 'spare' | 'cull', text: string, most: number) => {
  const n = Number(text.replace(',', '.').replace('%', ''))
  if (Number.isFinite(n) && n >= 0 && n <= most) set(field, n / 100)
  else problem.value = `Type a share from 0 to ${most} %.`
}
const setPacks = (text: string) => {
  const grams = text.split(/[;\s]+/).map(t => Number(t.replace(',', '.').replace(/g$/, ''))).filter(Boolean)
  if (grams.length > 0 && grams.every(g => Number.isFinite(g) && g > 0)) set('packGrams', grams)
  else problem.value = 'Type the packs you can buy in grams, like 5 10 28.'
}
const VERDICT = { easy: 'Goes through easily', tight: 'Tight', no: 'Will not go through' } as const
const helpOf = (check: SpecHoleCheck) => (check.helps.length ? `A ${check.helps.join(' or ')} would help; culling the smallest holes does too.`.replace('A fewer passes', 'Fewer passes') : 'A larger bead, or another path, would help.')
</script>

<template>
  <main class="page">
    <section class="need" aria-labelledby="beads">
      <h2 id="beads">Beads to buy</h2>
      <ul class="beads">
        <li v-for="b in buy" :key="b.bead.number">
          <span class="swatch tall" :style="{ '--bead': b.bead.colour }" />
          <span class="what"><b>{{ b.bead.letter }} {{ b.bead.name }}</b><span class="quiet">{{ requireSpec(b.bead.spec).name }}, {{ b.bead.finish }} · {{ showNumber(b.count) }} in the piece, {{ showNumber(b.need) }} with spare and culls</span></span>
          <span class="amount"><span class="figure">{{ showNumber(b.grams, 1) }} g</span><span class="quiet">{{ b.packs.map(p => `${p.count} × ${p.grams} g`).join(' + ') }} · about {{ showNumber(b.left) }} left</span></span>
        </li>
      </ul>
      <p v-if="buy.length === 0" class="soft">No beads in the pattern yet. Lay some on the mat.</p>
      <div class="fields three">
        <VTextField :model-value="percent(supply.spare)" label="Spare" @change="(e: Event) => setPercent('spare', (e.target as HTMLInputElement).value, 100)" />
        <VTextField :model-value="percent(supply.cull)" label="Culls in a bag" @change="(e: Event) => setPercent('cull', (e.target as HTMLInputElement).value, 50)" />
        <VTextField :model-value="supply.packGrams.join(' ')" label="Packs sold, g" @change="(e: Event) => setPacks((e.target as HTMLInputElement).value)" />
      </div>
      <p v-if="problem" class="caution" role="alert">{{ problem }}</p>
    </section>

    <section v-for="w in works" :key="w.part.id" class="need" :aria-labelledby="`thread-${w.part.id}`">
      <h2 :id="`thread-${w.part.id}`">Thread<template v-if="works.length > 1">: {{ w.part.name }}</template></h2>
      <ul class="cuts">
        <li v-for="cut in w.cuts" :key="cut.id">
          <span class="figure">{{ long(cut.totalMm) }}</span>
          <span class="what">
            <b>{{ cut.name }}: <template v-if="cut.id === 'warp'">{{ cut.pieces }} of {{ length(cut.cutMm) }}</template><template v-else-if="cut.joins === 0">one length</template><template v-else>{{ cut.pieces }} lengths of up to {{ long(cut.cutMm) }}, {{ cut.joins }} {{ cut.joins === 1 ? 'join' : 'joins' }}</template></b>
            <span class="quiet">model: {{ cut.formula }} = {{ long(cut.pathMm) }}; {{ length(cut.spareMm) }} of the whole is to spare</span>
          </span>
        </li>
      </ul>
      <div class="fields">
        <VSelect :model-value="supply.thread" :items="threads" label="Thread" @update:model-value="(v: string) => set('thread', v)" />
        <VSelect :model-value="supply.needle" :items="needles" label="Needle" @update:model-value="(v: string) => set('needle', v)" />
        <LengthField :model-value="supply.workingLengthMm" label="Longest you like to handle" :least="500" :most="6000" @update:model-value="mm => set('workingLengthMm', mm)" />
        <LengthField :model-value="supply.tailMm" label="Tail at a join" :least="50" :most="500" @update:model-value="mm => set('tailMm', mm)" />
        <VCheckbox :model-value="supply.doubled" label="Doubled thread" @update:model-value="v => set('doubled', Boolean(v))" />
        <VSelect :model-value="supply.reinforce" :items="[0, 1, 2, 3, 4]" label="Extra passes to reinforce" @update:model-value="(v: number) => set('reinforce', v)" />
      </div>
    </section>

    <section v-for="w in works" :key="`hole-${w.part.id}`" class="need" :aria-labelledby="`hole-${w.part.id}`">
      <h2 :id="`hole-${w.part.id}`">Will it go through?<template v-if="works.length > 1"> {{ w.part.name }}</template></h2>
      <div v-for="check in w.holes" :key="check.spec" class="hole" :class="check.verdict">
        <svg viewBox="-50 -50 100 100" aria-hidden="true">
          <circle r="46" class="glass" /><circle :r="34" class="opening" />
          <circle v-for="k in check.passes - 1" :key="k" :r="34 * requireThread(supply.thread).diameterMm / check.holeMm" :cx="20 * Math.cos(k * 2.1)" :cy="20 * Math.sin(k * 2.1)" class="thread" />
          <ellipse :rx="34 * requireNeedle(supply.needle).eyeMm / check.holeMm" :ry="12 * requireNeedle(supply.needle).eyeMm / check.holeMm" class="needle" />
        </svg>
        <div>
          <b>{{ VERDICT[check.verdict] }}: {{ requireSpec(check.spec).name }}</b>
          <p>Hole {{ check.holeMm.toFixed(2) }} mm; {{ check.passes }} passes need {{ check.leastMm.toFixed(2) }}<template v-if="check.surelyMm > check.leastMm + 0.005"> to {{ check.surelyMm.toFixed(2) }}</template> mm with {{ requireThread(supply.thread).name }} and needle {{ requireNeedle(supply.needle).name }}.</p>
          <p v-if="check.verdict !== 'easy'">{{ helpOf(check) }}</p>
        </div>
      </div>
      <template v-if="techniqueOf(w.part).fields.length">
        <h3>{{ techniqueOf(w.part).name }}</h3>
        <div class="fields">
          <template v-for="field in techniqueOf(w.part).fields" :key="field.key">
            <VSelect v-if="field.kind === 'choice'" :model-value="w.part.settings[field.key]" :items="field.choices!.map(c => ({ value: c.value, title: c.label }))" :label="field.label" :hint="field.help" persistent-hint @update:model-value="v => setSetting(w.part, field.key, v)" />
            <LengthField v-else-if="field.kind === 'length'" :model-value="Number(w.part.settings[field.key])" :label="field.label" :hint="field.help" :least="0.05" :most="1000" :decimals="2" @update:model-value="mm => setSetting(w.part, field.key, mm)" />
            <VCheckbox v-else :model-value="Boolean(w.part.settings[field.key])" :label="field.label" @update:model-value="v => setSetting(w.part, field.key, Boolean(v))" />
          </template>
        </div>
      </template>
    </section>
  </main>
</template>

<style scoped>
.page { padding: 12px 24px 32px; display: grid; grid-template-columns: repeat(auto-fit, minmax(330px, 1fr)); gap: 28px 32px; align-items: start; max-width: 1480px; margin: 0 auto; width: 100%; }
.need { display: grid; gap: 16px; }
ul { list-style: none; margin: 0; padding: 0; }
.beads li { display: grid; grid-template-columns: auto 1fr auto; gap: 12px; align-items: center; padding: 11px 0; border-top: 1px solid var(--line); }
.tall { width: 22px; height: 30px; border-radius: 7px; }
.what, .amount { display: grid; gap: 2px; }
.amount { justify-items: end; text-align: end; }
.beads .figure { font-size: 24px; white-space: nowrap; }
.cuts li { display: grid; grid-template-columns: auto 1fr; gap: 16px; align-items: center; padding: 10px 0; border-top: 1px solid var(--line); }
.cuts .figure { font-size: 34px; min-width: 96px; }
.fields { display: grid; grid-template-columns: 1fr 1fr; gap: 16px 12px; align-items: start; }
.three { grid-template-columns: repeat(3, 1fr); }
.hole { display: grid; grid-template-columns: 76px 1fr; gap: 16px; align-items: center; background: var(--verdigris-wash); color: var(--verdigris); padding: 14px; border-radius: var(--round); font-size: 14.5px; }
.hole b { font: 700 18px/1.2 var(--title); }
.tight, .no { background: var(--marigold-wash); color: var(--marigold); }
.glass { fill: var(--mat); stroke: currentColor; stroke-width: 3; }
.opening { fill: var(--paper); }
.thread { fill: currentColor; opacity: 0.8; }
.needle { fill: none; stroke: var(--ink); stroke-width: 3; }
.caution { color: var(--marigold); }
@media (width <= 720px) { .page { grid-template-columns: minmax(0, 1fr); padding: 8px 14px 24px; } .beads li { grid-template-columns: auto 1fr; } .amount { grid-column: 2; justify-items: start; text-align: start; } }
</style>
