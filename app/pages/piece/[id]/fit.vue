<script setup lang="ts">
import { isCounted } from '#core/piece/nature'
import { computed, onMounted, ref } from 'vue'
import { asKind, forPerson, withClosure } from '#core/fit/change'
import { choiceSteps, widthChoices, widthChoiceSteps, type Choice } from '#core/fit/choices'
import { closureOf } from '#core/wear/closure'
import { boundsOf } from '#core/bounds'
import { feelQuestion, feelShort } from '#core/fit/feel'
import { fitOf } from '#core/fit/reckon'
import { canWind, FIT_TABLE, fitKindOf, NECKLACE_LENGTHS, type FitKind } from '#core/wear/kind'

import { setStep } from '#core/piece/edit'
import { columnsOf, fittedPart, numberAt, techniqueOf, workOf } from '#core/piece/piece'
import { acrossWords } from '#core/technique/technique'
import { becomes, conversionNotes, recipeSteps, settingSteps, specSteps, stitchSteps } from '#core/piece/recast'
import { fitSchema, type Fit } from '#core/piece/schema'
import type { Step } from '#core/piece/step'
import { fillSteps } from '#core/piece/wire'
import { isoFromGb, isoFromUs, ringSize } from '#core/units/ring-size'
import { mmFromInch, showNumber } from '#core/units/length'
import { shortened } from '#core/units/text'
import { matching, MATCHES, type Match } from '#core/begin/matching'
import { createdAnswer } from '#core/contract/piece'
import { pieceToBody } from '#core/piece/codec'
import { api } from '../../../composables/api'
import { saying } from '../../../composables/saying'
import { choicesFor } from '#core/fit/hang-choices'
import { choiceWords, offWords } from '../../../composables/choice-words'
import { useLengths } from '../../../composables/lengths'
import { useSpecs } from '../../../composables/specs'
import { useAccount } from '../../../stores/account'
import { useLearned } from '../../../stores/learned'
import { usePiece } from '../../../stores/piece'
import BendingGuide from '../../../components/BendingGuide.vue'
import ClosureFields from '../../../components/ClosureFields.vue'
import CrossWires from '../../../components/CrossWires.vue'
import FitAnswer from '../../../components/FitAnswer.vue'
import FitChart from '../../../components/FitChart.vue'
import FitReasons from '../../../components/FitReasons.vue'
import GaugeFields from '../../../components/GaugeFields.vue'
import LengthField from '../../../components/LengthField.vue'
import NumberField from '../../../components/NumberField.vue'
import PersonChoice from '../../../components/PersonChoice.vue'
import ScriptField from '../../../components/ScriptField.vue'
import StitchSettings from '../../../components/StitchSettings.vue'

const store = usePiece()
const account = useAccount()
const learned = useLearned()
const { length } = useLengths()
const piece = computed(() => store.piece!)
const part = computed(() => fittedPart(piece.value))
const kind = computed(() => fitKindOf(piece.value.fit.kind))
/** A recipe of one’s own with the values of its fields. */
const own = computed(() => {
  const side = techniqueOf(part.value).recipe
  return side?.keptBy === part.value.technique ? side.of(part.value) : null
})
function vary(id: string, value: number) {
  const { recipe, params } = own.value!
  const steps = recipeSteps(piece.value, part.value, { recipe, params: { ...params, [id]: value } })
  if (steps.ok) commit('Fields of the recipe', steps.value)
  else problem.value = steps.problems[0]!.says
}
const choices = computed(() => choicesFor(learned.reckoned(piece.value)))
onMounted(() => learned.fetch())
const widths = computed(() => widthChoices(piece.value))
const problem = ref('')

const commit = (label: string, steps: Step[]) => {
  problem.value = steps.length === 0 ? '' : (store.commit(label, steps) ?? '')
}
const set = <K extends keyof Fit>(field: K, value: Fit[K]) => {
  if (piece.value.fit[field] !== value) commit('Fit', [setStep(piece.value, ['fit', field], value as never)])
}
const setFit = (label: string, fit: Fit) => {
  if (fit !== piece.value.fit) commit(label, [setStep(piece.value, ['fit'], fit)])
}
const kinds = FIT_TABLE.map((k) => ({ value: k.kind, title: k.name }))
const parts = computed(() => piece.value.parts.map((p) => ({ value: p.id, title: p.name })))
const stitches = computed(() => becomes(part.value).map((t) => ({ value: t.id, title: t.name })))
const specs = useSpecs(
  () => [part.value.spec, ...piece.value.tray.map((b) => b.spec)],
  () => !isCounted(part.value),
)
/** The bead that new columns are laid in: what lies in the first corner, or the first of the tray. */
const ground = computed(() => numberAt(part.value, 0, 0) || (piece.value.tray[0]?.number ?? 0))
const setting = (key: string, value: string | number | boolean) => {
  if (part.value.settings[key] === value) return
  const next = { ...part.value.settings, [key]: value }
  commit('How the stitch is worked', settingSteps(piece.value, part.value, next, ground.value))
}
/** Figures of work on wire, line by line. */
const tables = computed(
  () => techniqueOf(part.value).wire?.tables?.(workOf(part.value), fitOf(piece.value).wantedMm) ?? [],
)
/** What fills the lines of work on wire. */
const filled = computed(() => fillSteps(piece.value, part.value))
/** What the last move to another stitch changed. */
const moved = ref<readonly string[]>([])
function moveTo(technique: string) {
  moved.value = conversionNotes(part.value, technique)
  commit('Stitch', stitchSteps(piece.value, part.value, technique, ground.value, account.habit))
}
const setNotes = (notes: string) => {
  if (notes !== piece.value.notes) commit('Notes', [setStep(piece.value, ['notes'], notes)])
}
const passes = computed(() => kind.value.passes !== undefined && piece.value.fit.closure.kind === 'none')
const goesRound = computed(() => canWind(piece.value.fit.kind))
const lengths = computed(() => NECKLACE_LENGTHS.map((l) => ({ ...l, mm: mmFromInch((l.least + l.most) / 2) })))

// ---- rings are known by their sizes
const ringText = ref('')
const ring = computed(() => ringSize(piece.value.fit.bodyMm))
function setRing(text: string) {
  const plain = text.trim()
  const us = Number(plain.replace(',', '.'))
  const iso = isoFromGb(plain) ?? (plain !== '' && Number.isFinite(us) ? (us >= 30 ? us : isoFromUs(us)) : null)
  if (iso === null || iso < 30 || iso > 90) {
    problem.value =
      `“${plain}” is not a ring size. Type a United States number like 7, a British letter like L, or the round ` +
      'in mm like 54.'
    return
  }
  ringText.value = ''
  set('bodyMm', Math.round(iso * 100) / 100)
}

const busy = ref(false)
/** A new piece that goes with this one. */
async function match(which: Match) {
  busy.value = true
  const body = pieceToBody(matching(piece.value, which))
  await saying(
    async () => {
      const { id } = await api(createdAnswer, 'piece', { method: 'POST', body })
      await navigateTo(`/piece/${id}/mat`)
    },
    (text) => {
      problem.value = text
    },
  )
  busy.value = false
}
const PAIRS = [
  { value: 'mirror', title: 'mirrors the first' },
  { value: 'copy', title: 'is a copy of it' },
]
const nameOf = (c: Choice) => (c.says === undefined ? `Take ${c.times} repeats` : `Take ${c.says}`)
const take = (choice: Choice) => commit(shortened(nameOf(choice), 80), choiceSteps(piece.value, choice))
const changeOf = (choice: Choice) => choiceWords(choice, { piece: piece.value, part: part.value }, length)
/** Whether figures and colours end whole, in words. */
const ending = (c: Choice) =>
  c.says !== undefined || c.cycleRows === 0
    ? c.way === 'whole' || c.says !== undefined
      ? ''
      : ' · repeats whole'
    : c.cycleWhole
      ? ' · colours end whole, the repeat does not'
      : ' · breaks off in the repeat'
const room = (c: Choice) => (kind.value.eases.length ? `, ${length(c.fit.roomMm)} room` : '')
const hours = ({ hours: { least, most } }: Choice) =>
  most < 1
    ? `${Math.max(1, Math.round(least * 60))}–${Math.round(most * 60)} min`
    : `${showNumber(least, least < 10 ? 1 : 0)}–${showNumber(most, most < 10 ? 1 : 0)} h`
/** How many there are across, in the words of the technique. */
const across = computed(() => acrossWords(techniqueOf(part.value), columnsOf(part.value)))
</script>

<template>
  <main class="page">
    <div class="column">
      <section class="body" aria-labelledby="for-whom">
        <h2 id="for-whom">For whom, and how close</h2>
        <div class="fields">
          <VSelect
            :model-value="piece.fit.kind"
            :items="kinds"
            label="It is"
            @update:model-value="(k: FitKind) => setFit('Kind', asKind(piece.fit, k))"
          />
          <PersonChoice
            :kind="piece.fit.kind"
            :wearer="piece.fit.wearer"
            @choose="(person) => setFit(`For ${person.name}`, forPerson(piece.fit, person))"
          />
          <VTextField
            :model-value="piece.fit.wearer"
            label="For (optional)"
            maxlength="60"
            @change="(e: Event) => set('wearer', (e.target as HTMLInputElement).value.trim())"
          />
          <LengthField
            :model-value="piece.fit.bodyMm"
            :label="kind.measureName"
            :least="kind.least"
            :most="kind.most"
            :hint="kind.howTo"
            @update:model-value="(mm) => set('bodyMm', mm)"
          />
          <div v-if="piece.fit.kind === 'necklace'" class="eases" role="group" aria-label="Usual lengths">
            <button
              v-for="l in lengths"
              :key="l.name"
              type="button"
              class="button"
              :aria-pressed="Math.abs(piece.fit.bodyMm - l.mm) < 13"
              :class="{ on: Math.abs(piece.fit.bodyMm - l.mm) < 13 }"
              @click="set('bodyMm', l.mm)"
            >
              {{ l.name }}<span>{{ length(l.mm) }}</span>
            </button>
          </div>
          <template v-if="piece.fit.kind === 'ring'">
            <VTextField
              v-model="ringText"
              label="Or a ring size"
              placeholder="7, L, 54"
              hint="United States number, British letter, or the round in mm."
              persistent-hint
              @change="setRing(ringText)"
            />
            <p class="sizes">
              ISO <b>{{ showNumber(ring.iso, 1) }}</b> · United States <b>{{ ring.us }}</b> · British
              <b>{{ ring.gb }}</b> · {{ length(ring.diameterMm, 1) }} across.
              <NuxtLink to="/reference/strips">Print a ring strip</NuxtLink>
            </p>
          </template>
          <VSelect
            v-if="kind.pieces === 2"
            :model-value="piece.fit.pair"
            :items="PAIRS"
            label="The second of the pair"
            @update:model-value="(v: 'mirror' | 'copy') => set('pair', v)"
          />
          <template v-if="kind.eases.length">
            <LengthField
              :model-value="piece.fit.easeMm"
              label="Room to move"
              :bounds="boundsOf(fitSchema, 'easeMm')"
              @update:model-value="(mm) => set('easeMm', mm)"
            />
            <div class="eases" role="group" aria-label="Usual room">
              <button
                v-for="e in kind.eases"
                :key="e.id"
                type="button"
                class="button"
                :aria-pressed="piece.fit.easeMm === e.mm"
                :class="{ on: piece.fit.easeMm === e.mm }"
                @click="set('easeMm', e.mm)"
              >
                {{ e.name }} {{ length(e.mm) }}
              </button>
            </div>
          </template>
          <VSelect
            v-if="goesRound"
            :model-value="piece.fit.wraps"
            :items="[1, 2, 3, 4, 5, 6, 7, 8]"
            label="Times round"
            @update:model-value="(n: number) => set('wraps', n)"
          />
          <ClosureFields
            v-if="kind.closures.length > 1"
            :kind="piece.fit.kind"
            :closure="piece.fit.closure"
            @change="(closure) => setFit('Closure', withClosure(piece.fit, closure))"
          />
          <LengthField
            v-if="passes"
            :model-value="piece.fit.passMm"
            :label="kind.passes!.name"
            :bounds="boundsOf(fitSchema, 'passMm')"
            :hint="kind.passes!.howTo"
            @update:model-value="(mm) => set('passMm', mm)"
          />
          <VSelect
            v-if="piece.fit.kind === 'cuff'"
            :model-value="piece.fit.cuffShare"
            :items="
              [0.75, 0.76, 0.77, 0.78, 0.79, 0.8].map((v) => ({
                value: v,
                title: `${showNumber(v * 100)} % of the wrist`,
              }))
            "
            label="The band covers"
            @update:model-value="(v: number) => set('cuffShare', v)"
          />
        </div>
        <p v-if="closureOf(piece.fit.closure.kind).caution" class="caution">
          {{ closureOf(piece.fit.closure.kind).caution }}
        </p>
        <p v-if="piece.fit.kind === 'necklace' || piece.fit.kind === 'choker'" class="caution">
          Cords and necklaces are dangerous to small children: a child’s necklace needs a breakaway clasp. What is sold
          must follow the law of the place.
        </p>
        <p v-if="problem" class="caution" role="alert">{{ problem }}</p>
      </section>
      <section class="under how" aria-labelledby="how">
        <h2 id="how">Made how</h2>
        <div class="fields">
          <VSelect
            v-if="parts.length > 1"
            :model-value="part.id"
            :items="parts"
            label="Part that is fitted"
            @update:model-value="(id: string) => set('part', id)"
          />
          <VSelect :model-value="part.technique" :items="stitches" label="Stitch" @update:model-value="moveTo" />
          <ul v-if="moved.length" class="notes" role="status">
            <li v-for="note in moved" :key="note">{{ note }}</li>
          </ul>
          <StitchSettings :technique="part.technique" :settings="part.settings" @change="setting" />
          <NumberField
            v-for="p in own?.recipe.params ?? []"
            :key="p.id"
            :model-value="own!.params[p.id] ?? p.usual"
            :label="p.label"
            :hint="`${p.least} to ${p.most}`"
            :bounds="{ least: p.least, most: p.most, whole: true }"
            @update:model-value="(n) => vary(p.id, n)"
          />
          <ScriptField
            v-if="techniqueOf(part).script && part.plan"
            :piece="piece"
            :part="part"
            @steps="(label, steps) => commit(label, [...steps])"
          />
          <CrossWires
            v-if="techniqueOf(part).wire?.crosses"
            :piece="piece"
            :part="part"
            @steps="(label, steps) => commit(label, [...steps])"
          />
          <button
            v-if="techniqueOf(part).wire?.full"
            type="button"
            class="button fill"
            :disabled="filled.length === 0"
            @click="commit('Lines filled', filled)"
          >
            {{ filled.length === 0 ? 'Every line is full' : 'Fill every line' }}
          </button>
          <VSelect
            :model-value="part.spec"
            :items="specs"
            label="Bead"
            :hint="`The pattern stays bead for bead, ${across}; its size follows.`"
            persistent-hint
            @update:model-value="(v: string) => commit('Bead size', specSteps(piece, part, v))"
          />
        </div>
      </section>
    </div>
    <div class="column">
      <section class="result" aria-labelledby="closes">
        <h2 id="closes">{{ feelQuestion(piece.fit.kind) }}</h2>
        <FitAnswer :piece="piece" />
        <FitReasons :piece="piece" />
      </section>
      <section v-for="table in tables" :key="table.title" class="under reckoned" :aria-label="table.title">
        <h2>{{ table.title }}</h2>
        <div class="scroll" tabindex="0" role="group" :aria-label="`${table.title}, a table`">
          <table>
            <thead>
              <tr>
                <th v-for="name in table.head" :key="name" scope="col">{{ name }}</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="(cells, k) in table.rows" :key="k">
                <td v-for="(cell, c) in cells" :key="c">{{ cell }}</td>
              </tr>
            </tbody>
          </table>
        </div>
      </section>
      <BendingGuide class="under" :piece="piece" />
      <GaugeFields class="under gauge" :piece="piece" @steps="commit" />
      <section v-if="isCounted(part)" class="under match" aria-labelledby="match">
        <h2 id="match">To match</h2>
        <p class="quiet">Its beads and its motif, as something to wear with it: a new piece.</p>
        <button
          v-for="m in MATCHES.filter((one) => one !== piece.fit.kind)"
          :key="m"
          type="button"
          class="button"
          :disabled="busy"
          @click="match(m)"
        >
          {{ m === 'earrings' ? 'Earrings' : 'A pendant' }}
        </button>
      </section>
      <div class="under notes-of">
        <VTextarea
          :model-value="piece.notes"
          label="Notes"
          rows="3"
          auto-grow
          maxlength="4000"
          @change="(e: Event) => setNotes((e.target as HTMLTextAreaElement).value)"
        />
      </div>
    </div>
    <div class="column">
      <section class="choices" aria-labelledby="choices">
        <h2 id="choices">What comes near</h2>
        <ul>
          <li v-for="c in choices" :key="c.id" :class="{ current: c.current }" :data-way="c.way">
            <span class="times"
              ><span class="figure">{{ c.says === undefined ? c.times : c.beads }}</span
              ><span class="quiet">{{
                c.says !== undefined ? 'beads' : !isCounted(part) ? 'rounds' : c.times === 1 ? 'repeat' : 'repeats'
              }}</span></span
            >
            <span class="what"
              ><b>{{ changeOf(c) }}</b
              ><span
                >{{ kind.bend === 'round' ? 'closes at' : 'comes to' }}
                {{ length(c.fit.atMm, c.fit.wantedMm < 100 ? 1 : 0) }},
                {{ offWords(c.fit.differenceMm, length) }}</span
              ><span class="quiet"
                >{{ length(c.fit.beadworkMm.nominal) }} of beadwork{{ room(c) }},
                {{ feelShort(c.fit.feel, piece.fit.kind)
                }}<template v-if="isCounted(part)">
                  <template v-if="c.says === undefined"> · {{ showNumber(c.beads) }}&nbsp;beads</template
                  ><template v-if="c.beadsMore">
                    ({{ c.beadsMore > 0 ? '+' : '−' }}{{ Math.abs(c.beadsMore) }})</template
                  >
                  · {{ hours(c) }}</template
                >{{ ending(c) }}</span
              ></span
            >
            <span v-if="c.current" class="chosen">As planned</span>
            <button
              v-else
              type="button"
              class="button"
              :aria-label="c.says === undefined ? `Take ${c.times} repeats, ${changeOf(c)}` : nameOf(c)"
              @click="take(c)"
            >
              Take this
            </button>
          </li>
        </ul>
        <FitChart
          v-if="choices.length && choices[0]!.says === undefined"
          :choices="choices"
          :kind="piece.fit.kind"
          :words="changeOf"
        />
        <template v-if="widths.length">
          <h2 class="second">How wide</h2>
          <div class="widths">
            <button
              v-for="w in widths"
              :key="w.columns"
              type="button"
              class="button"
              :class="{ on: w.current }"
              :aria-pressed="w.current"
              @click="!w.current && commit('Width', widthChoiceSteps(piece, w.columns))"
            >
              <b>{{ w.columns }} across</b><span>{{ length(w.widthMm, 1) }} · {{ showNumber(w.beads) }} beads</span>
            </button>
          </div>
          <LengthField
            :model-value="piece.fit.widthMm"
            label="Width wanted"
            :bounds="boundsOf(fitSchema, 'widthMm')"
            @update:model-value="(mm) => set('widthMm', mm)"
          />
        </template>
      </section>
    </div>
  </main>
</template>

<style scoped>
.page {
  padding: 12px 24px 32px;
  display: grid;
  grid-template-columns: minmax(260px, 340px) minmax(280px, 1fr) minmax(360px, 1.2fr);
  gap: 28px;
  align-items: start;
  max-width: 1480px;
  margin: 0 auto;
  width: 100%;
}
section {
  display: grid;
  gap: 16px;
}
.column {
  display: grid;
  gap: 24px;
  align-content: start;
}
.fields {
  display: grid;
  gap: 16px;
}
.eases {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 6px;
  margin-top: -6px;
}
.eases .button {
  padding: 4px;
  font-size: 14px;
  font-weight: 500;
  flex-direction: column;
  gap: 2px;
}
.on {
  background: var(--dark);
  color: var(--dark-ink);
  box-shadow: none;
}
.on:hover {
  background: var(--dark);
}
.sizes {
  font-size: 14.5px;
  color: var(--soft);
  margin-top: -6px;
}
.sizes b {
  color: var(--ink);
}
.second {
  margin-top: 4px;
}
.under {
  border-top: 1px solid var(--line);
  padding-top: 20px;
}
.match .button {
  margin-inline-end: 8px;
}
ul.notes {
  font-size: 14px;
  color: var(--soft);
  gap: 4px;
}
.notes li {
  display: list-item;
  list-style: disc inside;
  padding: 0;
  border: 0;
}
.caution {
  background: var(--marigold-wash);
  color: var(--marigold);
  padding: 12px 14px;
  border-radius: var(--round-in);
  font-size: 14.5px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
}
li {
  display: grid;
  grid-template-columns: 64px 1fr auto;
  gap: 14px;
  align-items: center;
  padding: 10px 0;
  border-top: 1px solid var(--line);
}
.times {
  display: grid;
  justify-items: center;
  gap: 3px;
}
.times .figure {
  font-size: 30px;
}
.what {
  display: grid;
  gap: 2px;
  font-size: 14.5px;
}
.current .times .figure {
  color: var(--verdigris);
}
.chosen {
  color: var(--verdigris);
  font-weight: 700;
  font-size: 14.5px;
}
.widths {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
  gap: 8px;
}
.widths .button {
  flex-direction: column;
  gap: 3px;
  padding: 8px;
  min-height: 52px;
  font-weight: 400;
  font-size: 14px;
}
.result :deep(.answer strong) {
  font-size: 26px;
}
@media (width <= 1100px) {
  .page {
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  }
  .column:last-child {
    grid-column: 1 / -1;
  }
}
@media (width <= 720px) {
  .page {
    grid-template-columns: minmax(0, 1fr);
    padding: 8px 14px 24px;
    gap: 22px;
  }
  .column {
    display: contents;
  }
  .result {
    order: -1;
  }
  .choices {
    order: 1;
  }
  .gauge {
    order: 2;
  }
  .how {
    order: 3;
  }
  .notes-of {
    order: 4;
  }
  .choices li {
    grid-template-columns: 52px 1fr;
  }
  .choices li > :last-child {
    grid-column: 2;
    justify-self: start;
  }
}
.reckoned .scroll {
  overflow-x: auto;
}
.reckoned table {
  border-collapse: collapse;
  width: 100%;
  font-variant-numeric: tabular-nums;
}
.reckoned th {
  text-align: left;
  font-weight: 500;
  color: var(--soft);
  font-size: 14px;
  padding: 4px 12px 4px 0;
}
.reckoned td {
  border-top: 1px solid var(--line);
  padding: 6px 12px 6px 0;
}
</style>
