<script setup lang="ts">
import { extentOf } from '#core/fit/extent'
import { computed, onMounted, reactive, ref, watch } from 'vue'
import { DEFAULT_SPEC, requireSpec } from '#core/bead/spec'
import { boundsOf } from '#core/bounds'
import { asKind, forPerson, withClosure } from '#core/fit/change'
import { closureName, sameClosure, usualClosure } from '#core/wear/closure'
import { canWind, FIT_TABLE, fitKindOf, type FitKind } from '#core/wear/kind'
import { MOTIFS, type MotifId } from '#core/pattern/motif'
import { beginPiece, settingsFor } from '#core/begin/begin'
import { beginningsFor } from '#core/begin/beginnings'
import { doorsFor } from '#core/begin/door'
import { habitOf } from '#core/piece/habit'
import { pieceToBody } from '#core/piece/codec'
import { columnsOf, countedRows, fittedPart, techniqueOf, workOf, isGrid } from '#core/piece/piece'
import { fitSchema, type Fit } from '#core/piece/schema'
import { canBecome } from '#core/technique/making'
import { requireTechnique } from '#core/technique/registry'
import { choosesWidth, titled, type Settings } from '#core/technique/technique'
import { tallyPiece, totalOf } from '#core/tally/tally'
import { showNumber } from '#core/units/length'
import { createdAnswer, piecesAnswer } from '#core/contract/piece'
import { api, ApiError } from '../composables/api'
import { useLengths } from '../composables/lengths'
import { useSpecs } from '../composables/specs'
import { useAccount } from '../stores/account'
import { useShelf } from '../stores/shelf'
import ClosureFields from '../components/ClosureFields.vue'
import PersonChoice from '../components/PersonChoice.vue'
import FitAnswer from '../components/FitAnswer.vue'
import LengthField from '../components/LengthField.vue'
import ReadForm from '../components/ReadForm.vue'
import DoorChoice from '../components/DoorChoice.vue'
import StitchSettings from '../components/StitchSettings.vue'
import PartPicture from '../components/PartPicture.vue'
import WorkshopHead from '../components/WorkshopHead.vue'

useHead({ title: 'Start a piece · Weben' })
const { length } = useLengths()
const account = useAccount()
const wish = reactive({
  name: '',
  technique: 'peyote',
  spec: DEFAULT_SPEC,
  motif: 'diamonds' as MotifId,
  settings: {} as Settings,
  hangsFrom: '',
  start: (account.account?.settings.hand === 'left' ? 'right' : 'left') as 'left' | 'right',
})
const fit = ref<Fit>(
  fitSchema.parse({ kind: 'bracelet', bodyMm: 170, easeMm: 13, closure: usualClosure('toggle'), widthMm: 20 }),
)
const kind = computed(() => fitKindOf(fit.value.kind))
const set = <K extends keyof Fit>(field: K, value: Fit[K]) => {
  fit.value = { ...fit.value, [field]: value }
}
/** Widths that suit each kind, to begin with. */
const USUAL_WIDTH: Record<FitKind, number> = {
  bracelet: 20,
  cuff: 38,
  anklet: 10,
  choker: 16,
  necklace: 8,
  ring: 6,
  hoop: 6,
  earrings: 14,
  pendant: 20,
}
const tubeWidth = () => (requireTechnique(wish.technique).round ? 8 : USUAL_WIDTH[fit.value.kind])
function setKind(next: FitKind) {
  fit.value = { ...asKind(fit.value, next), widthMm: USUAL_WIDTH[next] }
  // What cannot become it gives way to what can, lately used first.
  if (!canBecome(requireTechnique(wish.technique), next))
    wish.technique = doorsFor({ kind: next, used: used.value, spec: wish.spec })[0]!.members[0]!.id
  usualClosureOf(wish.technique)
}
/** Techniques of this person’s pieces, the latest first. */
const used = ref<string[]>([])
onMounted(async () => {
  try {
    const { pieces } = await api(piecesAnswer, 'piece')
    used.value = [...new Set(pieces.map((p) => p.summary.technique))]
  } catch {
    /* without them every way stands where it usually does */
  }
})
/** The closure that goes with a technique, until another is chosen by hand. */
const closureChosen = ref(false)
function usualClosureOf(technique: string) {
  if (closureChosen.value) return
  const wanted = requireTechnique(technique).closure ?? kind.value.closures[0]!
  if (kind.value.closures.includes(wanted) && wanted !== fit.value.closure.kind)
    fit.value = withClosure(fit.value, usualClosure(wanted))
}
const shelf = useShelf()
/** A habit goes with all that is begun. */
watch(
  () => wish.technique,
  (now) => {
    wish.settings = habitOf(now, account.habit)
    usualClosureOf(now)
  },
)
const settings = computed(() => settingsFor(wish.technique, { ...wish, ...fit.value }))
function setting(key: string, value: string | number | boolean) {
  if (key === 'start') wish.start = value as 'left' | 'right'
  else wish.settings = { ...wish.settings, [key]: value }
}
const busy = ref(false)
const problem = ref('')

const words = computed(() => requireTechnique(wish.technique).words)
const defaultName = computed(() => {
  const thing = words.value.thing || MOTIFS.find((m) => m.id === wish.motif)!.name
  return thing.toLowerCase() === fit.value.kind ? thing : `${thing} ${fit.value.kind}`
})
const piece = computed(() =>
  beginPiece({
    ...wish,
    ...fit.value,
    name: wish.name.trim() || defaultName.value,
    gauges: shelf.gauges.map((g) => g.value.gauge),
    currency: account.account?.settings.currency,
  }),
)
const part = computed(() => fittedPart(piece.value))
const begins = computed(() => requireTechnique(wish.technique).begins ?? null)
const hangsFrom = computed(() => beginningsFor(wish.technique, fit.value.kind))
const wideBy = computed(() => hangsFrom.value.find(({ id }) => id === wish.hangsFrom)?.usualWidthMm)
watch(wideBy, (mm) => {
  set('widthMm', mm ?? tubeWidth())
})
/** What lies between a front and its necklace, where what it hangs from decides that; else empty. */
const between = computed(() => {
  const { closure } = piece.value.fit
  return sameClosure(closure, fit.value.closure) ? '' : closureName(closure)
})
const tube = computed(() => requireTechnique(wish.technique).round)
watch(tube, () => {
  set('widthMm', tubeWidth())
})
const widthChosen = computed(
  () =>
    begins.value !== null || wideBy.value !== undefined || choosesWidth(techniqueOf(part.value), workOf(part.value)),
)
const width = computed(() =>
  isGrid(part.value)
    ? techniqueOf(part.value).growth.widthOf(workOf(part.value))
    : extentOf(piece.value, part.value).widthMm.nominal,
)
const material = computed(() => requireTechnique(wish.technique).material)
const cords = computed(() => !material.value.counted)
const specs = useSpecs(
  () => [],
  () => cords.value,
)
watch(material, (now) => {
  wish.spec = now.usualSpec
})

async function begin() {
  busy.value = true
  problem.value = ''
  try {
    const { id } = await api(createdAnswer, 'piece', { method: 'POST', body: pieceToBody(piece.value) })
    await navigateTo(`/piece/${id}/mat`)
  } catch (error) {
    problem.value = !(error instanceof ApiError)
      ? 'The piece could not be saved. Try again in a moment.'
      : error.status === 0
        ? 'Weben’s server cannot be reached, so the piece is not begun yet. What you filled in stays here; ' +
          'press again when the server is back.'
        : error.says
    busy.value = false
  }
}
</script>

<template>
  <div>
    <WorkshopHead title="Start a piece"><NuxtLink to="/" class="button plain">Back</NuxtLink></WorkshopHead>
    <main>
      <ReadForm class="page" calm @done="begin">
        <section class="ask" aria-labelledby="who">
          <h2 id="who">What, and how big</h2>
          <div class="choice kinds" role="radiogroup" aria-label="It is">
            <button
              v-for="k in FIT_TABLE"
              :key="k.kind"
              type="button"
              role="radio"
              :aria-checked="fit.kind === k.kind"
              @click="setKind(k.kind)"
            >
              <b>{{ k.name.replace(', a pair', '') }}</b>
            </button>
          </div>
          <PersonChoice
            :kind="fit.kind"
            :wearer="fit.wearer"
            @choose="
              (person) => {
                fit = forPerson(fit, person)
              }
            "
          />
          <LengthField
            :model-value="fit.bodyMm"
            :label="kind.measureName"
            :least="kind.least"
            :most="kind.most"
            :hint="`${kind.howTo} Type it as you like: 17 cm, 6 3/4 in, 170.`"
            @update:model-value="(mm) => set('bodyMm', mm)"
          />
          <div v-if="kind.eases.length" class="choice" role="radiogroup" aria-label="How close">
            <button
              v-for="e in kind.eases"
              :key="e.id"
              type="button"
              role="radio"
              :aria-checked="fit.easeMm === e.mm"
              @click="set('easeMm', e.mm)"
            >
              <b>{{ e.name }}</b><span>+ {{ length(e.mm) }}</span>
            </button>
          </div>
          <VSelect
            v-if="canWind(fit.kind)"
            :model-value="fit.wraps"
            :items="[1, 2, 3, 4, 5, 6]"
            label="Times round"
            @update:model-value="(n: number) => set('wraps', n)"
          />
          <p v-if="between" class="quiet">It hangs by: {{ between.toLowerCase() }}.</p>
          <ClosureFields
            v-if="kind.closures.length > 1 && !between"
            :kind="fit.kind"
            :closure="fit.closure"
            @change="
              (closure) => {
                closureChosen = true
                fit = withClosure(fit, closure)
              }
            "
          />
          <LengthField
            v-if="kind.passes && fit.closure.kind === 'none'"
            :model-value="fit.passMm"
            :label="kind.passes.name"
            :bounds="boundsOf(fitSchema, 'passMm')"
            :hint="kind.passes.howTo"
            @update:model-value="(mm) => set('passMm', mm)"
          />
          <LengthField
            v-if="widthChosen"
            :model-value="fit.widthMm"
            :label="tube ? 'Thickness wanted, outside' : 'Width wanted'"
            :least="2"
            :most="wideBy ? 300 : 120"
            @update:model-value="(mm) => set('widthMm', mm)"
          />
        </section>

        <section class="ask" aria-labelledby="what">
          <h2 id="what">Made how</h2>
          <DoorChoice v-model="wish.technique" :kind="fit.kind" :spec="wish.spec" :used="used" />
          <p class="quiet">{{ requireTechnique(wish.technique).summary }}</p>
          <div v-if="hangsFrom.length" class="choice" role="radiogroup" aria-label="Hangs from">
            <button
              v-for="(b, k) in hangsFrom"
              :key="b.id"
              type="button"
              role="radio"
              :aria-checked="wish.hangsFrom === b.id || (k === 0 && !hangsFrom.some((o) => o.id === wish.hangsFrom))"
              :title="b.says"
              @click="wish.hangsFrom = b.id"
            >
              <b>{{ b.label }}</b>
            </button>
          </div>
          <details class="own">
            <summary>How the stitch is worked</summary>
            <div><StitchSettings :technique="wish.technique" :settings="settings" @change="setting" /></div>
          </details>
          <VSelect v-model="wish.spec" :items="specs" :label="cords ? 'Cord' : 'Bead'" />
          <div
            v-if="!cords && isGrid(part)"
            class="choice motifs"
            role="radiogroup"
            aria-label="Pattern to begin with"
          >
            <button
              v-for="m in MOTIFS"
              :key="m.id"
              type="button"
              role="radio"
              :aria-checked="wish.motif === m.id"
              :title="m.summary"
              @click="wish.motif = m.id"
            >
              <b>{{ m.name }}</b>
            </button>
          </div>
          <VTextField
            v-model="wish.name"
            label="Name"
            :placeholder="defaultName"
            persistent-placeholder
            maxlength="80"
          />
        </section>

        <section class="live" aria-labelledby="live">
          <h2 id="live" class="hidden">What it comes to</h2>
          <PartPicture
            :part="part"
            :tray="piece.tray"
            :parts="piece.parts"
            class="picture"
            :class="{ hanging: begins || wideBy }"
          />
          <FitAnswer :piece="piece" aria-live="polite" />
          <div class="figures">
            <div v-if="!cords">
              <span class="quiet">Beads</span
              ><span class="figure big">{{ showNumber(totalOf(tallyPiece(piece))) }}</span>
            </div>
            <div>
              <span class="quiet">{{ words.acrossTitle }}</span><span class="figure big">{{ columnsOf(part) }}</span
              ><span class="quiet">{{ length(width, 1) }}</span>
            </div>
            <div>
              <span class="quiet">{{ titled(words.line) }}s</span
              ><span class="figure big">{{ countedRows(part) }}</span
              ><span class="quiet">{{ requireSpec(wish.spec).name }}</span>
            </div>
          </div>
          <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
          <button type="submit" class="button main go" :disabled="busy">Lay it on the mat</button>
        </section>
      </ReadForm>
    </main>
  </div>
</template>

<style scoped>
.page {
  max-width: 1360px;
  margin: 0 auto;
  padding: 8px 28px 40px;
  display: grid;
  grid-template-columns: 0.8fr 1.35fr 1.1fr;
  gap: 36px;
  align-items: start;
}
.ask,
.live {
  display: grid;
  gap: 16px;
}
.choice {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 6px;
}
.own summary {
  cursor: pointer;
  color: var(--verdigris);
  min-height: 32px;
}
.own > div {
  display: grid;
  gap: 14px;
  padding-top: 8px;
}
.motifs {
  grid-template-columns: repeat(2, 1fr);
}
.choice button {
  display: grid;
  gap: 3px;
  align-content: center;
  min-height: 52px;
  padding: 10px 12px;
  border: 0;
  border-radius: var(--round-in);
  background: var(--paper);
  color: var(--ink);
  font: 400 13.5px/1.3 var(--text);
  text-align: start;
  cursor: pointer;
  box-shadow: inset 0 0 0 1.5px var(--line);
}
.choice button b {
  font-weight: 700;
  font-size: 15px;
}
.choice button span {
  color: var(--soft);
}
.choice button[aria-checked='true'] {
  background: var(--dark);
  color: var(--dark-ink);
  box-shadow: none;
}
.choice button[aria-checked='true'] span {
  color: inherit;
  opacity: 0.82;
}
.live {
  position: sticky;
  top: 12px;
}
.picture {
  height: 168px;
}
.picture.hanging {
  height: 300px;
}
.figures {
  display: flex;
  justify-content: space-between;
  gap: 12px;
}
.figures > div {
  display: grid;
  gap: 4px;
  align-content: start;
}
.big {
  font-size: 38px;
}
.go {
  min-height: 56px;
  font-size: 17px;
}
.problem {
  color: var(--marigold);
}
@media (width <= 1000px) {
  .page {
    grid-template-columns: 1fr 1fr;
  }
  .live {
    grid-column: 1 / -1;
    position: static;
  }
}
@media (width <= 700px) {
  .page {
    grid-template-columns: minmax(0, 1fr);
    padding: 4px 14px 28px;
    gap: 24px;
  }
}
</style>
