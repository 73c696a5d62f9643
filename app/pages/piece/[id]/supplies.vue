<script setup lang="ts">
import { isCounted } from '#core/piece/nature'
import { titled } from '#core/technique/technique'
import { computed, onMounted, ref } from 'vue'
import { requireSpec } from '#core/bead/spec'
import { fitKindOf, EARRING_GRAMS } from '#core/wear/kind'
import { packWords } from '#core/format/shopping-csv'
import { amountIn, CURRENCIES, requireCurrency, showMoney } from '#core/money/money'
import { setStep } from '#core/piece/edit'
import { techniqueOf, type Part } from '#core/piece/piece'
import { boundsOf } from '#core/bounds'
import { costSchema, findingSchema, supplySchema, type Cost, type Supply } from '#core/piece/schema'
import { amountOf } from '#core/shelf/shelf'
import { BIND_OVER_MM, boundEnd, strandCords } from '#core/tally/cords'
import { beadAsks, beadsToBuy, timesMade, type BeadToBuy } from '#core/supply/beads'
import { closureIn, contests, freeFor, reservedBy, spoolOf, takenBy } from '#core/supply/box'
import { NEEDLES, requireThread, THREADS } from '#core/thread/catalogue'
import { costOf, weightOf } from '#core/supply/cost'
import { linksNeeded } from '#core/supply/links'
import { settingSteps } from '#core/piece/recast'
import { holesOf } from '#core/supply/holes'
import { cutList, lengthsOf, pathOf, type Help } from '#core/supply/thread'
import { EAR_WIRE_GAUGES } from '#core/supply/wire'
import { closureName } from '#core/wear/closure'
import { showNumber } from '#core/units/length'
import { saying } from '../../../composables/saying'
import { wireList } from '#core/supply/wire-list'
import { useLengths } from '../../../composables/lengths'
import { useAccount } from '../../../stores/account'
import { useBox } from '../../../stores/box'
import { useLearned } from '../../../stores/learned'
import { usePiece } from '../../../stores/piece'
import { useSupplier } from '../../../stores/supplier'
import PlotChart from '../../../chart/PlotChart.vue'
import HoleAnswer from '../../../components/HoleAnswer.vue'
import LengthField from '../../../components/LengthField.vue'
import NumberField from '../../../components/NumberField.vue'
import MoneyField from '../../../components/MoneyField.vue'
import StitchSettings from '../../../components/StitchSettings.vue'

const store = usePiece()
const learned = useLearned()
const box = useBox()
const supplier = useSupplier()
const account = useAccount()
const { length, long } = useLengths()
const id = useRoute().params.id as string
const piece = computed(() => store.piece!)
const supply = computed(() => piece.value.supply)
const cost = computed(() => piece.value.cost)
/** The piece as this hand makes it: what is bought, cut and paid follows from it. */
const reckoned = computed(() => learned.reckoned(piece.value))
const taught = computed(() => {
  const said: string[] = []
  const speed = learned.speedOf(piece.value)
  if (speed)
    said.push(
      `${Math.round(speed.least)}–${Math.round(speed.most)} beads an hour, from ${speed.makings} of your makings`,
    )
  if (reckoned.value.supply.culls) said.push('the share of beads that you put aside')
  if (reckoned.value.supply.slack) said.push(`path × ${showNumber(reckoned.value.supply.slack, 2)} of thread`)
  return said
})
onMounted(() => learned.fetch())
const problem = ref('')
const says = ref('')
onMounted(() => {
  box.fetch().catch(() => {
    /* the list works without the box */
  })
})

const market = computed(() => ({
  box: box.box,
  pieceId: id,
  offers: supplier.offers,
  currency: account.account?.settings.currency,
}))
const buy = computed(() => beadsToBuy(reckoned.value, market.value))
const made = computed(() => timesMade(piece.value))
const kind = computed(() => fitKindOf(piece.value.fit.kind))
const cuts = computed(() => cutList(reckoned.value))
const rings = computed(() => linksNeeded(piece.value).filter((l) => l.kind === 'ring'))
const wires = computed(() => wireList(reckoned.value, made.value))
const lengths = computed(() => lengthsOf(reckoned.value, made.value))
const checks = computed(() => holesOf(piece.value).map(({ check }) => check))
const lettersOf = (spec: string) => buy.value.filter((b) => b.bead.spec === spec).map((b) => b.bead.letter)
const worst = computed(() =>
  checks.value.some((c) => c.verdict === 'no')
    ? 'no'
    : checks.value.some((c) => c.verdict === 'tight')
      ? 'tight'
      : 'easy',
)
const costing = computed(() => costOf(reckoned.value, market.value))
const money = (minor: number) => showMoney(minor, cost.value.currency)
const toBuyGrams = computed(() => buy.value.reduce((sum, b) => sum + b.buyGrams, 0))
const allGrams = computed(() => buy.value.reduce((sum, b) => sum + b.grams, 0))
const packPrice = computed(() => buy.value.reduce((sum, b) => sum + (b.buyGrams > 0 ? (b.price ?? 0) : 0), 0))
const weight = computed(() => weightOf(piece.value))
const threadMm = computed(() => lengths.value.find((l) => l.material === 'thread')?.totalMm ?? 0)
/** Braids hang on cords of their own; thread and needle are not asked for then. */
const cord = computed(() =>
  threadMm.value === 0 ? piece.value.parts.map((p) => pathOf(p).cord).find((c) => c !== undefined) : undefined,
)
/** Of work on wire alone how many lengths are cut; null where thread or cord carries beads. */
const wiredOf = computed(() => {
  if (threadMm.value > 0 || wires.value.length === 0 || cord.value) return null
  const lengths = wires.value.flatMap((wire) => wire.cuts).reduce((sum, cut) => sum + cut.count, 0)
  return `${lengths} ${lengths === 1 ? 'length' : 'lengths'}`
})
const onlyCords = computed(() => piece.value.parts.every((p) => !isCounted(p)))
/** What is cut most of, in words: thread, wire or cord. */
const cutting = computed(() => {
  if (threadMm.value > 0 || lengths.value.length === 0)
    return { what: 'Thread', mm: threadMm.value, of: requireThread(supply.value.thread).name }
  const { material, totalMm } = lengths.value.find((l) => l.totalMm > 0) ?? lengths.value[0]!
  return {
    what: titled(material),
    mm: totalMm,
    of:
      cord.value?.name ??
      wiredOf.value ??
      `${piece.value.parts.reduce((sum, p) => sum + strandCords(p, piece.value.tray).length, 0)} strands`,
  }
})
const caps = computed(() =>
  piece.value.parts.flatMap((part) => {
    const end = boundEnd(part, piece.value.tray)
    return end ? [{ part, end }] : []
  }),
)
const VERDICT = { easy: 'easily', tight: 'tight', no: 'no' } as const
const contested = computed(() => new Map(contests(box.box).map((c) => [c.item.id, c])))
const tubeNote = (b: BeadToBuy) => {
  if (!b.tube) return ''
  if (b.takenGrams > 0) return `${showNumber(b.takenGrams, 1)} g taken out for this piece`
  const reserved = reservedBy(box.box, b.tube, id)
  const others = amountOf(b.tube.value) - freeFor(box.box, b.tube, id)
  const forThis = reserved > 0 ? `, ${showNumber(reserved, 1)} g set aside for this` : ''
  const forOthers = others > 0.005 ? `, ${showNumber(others, 1)} g for other pieces` : ''
  return `${showNumber(amountOf(b.tube.value), 1)} g in the box${forThis}${forOthers}`
}
const mostOf = (beads: readonly BeadToBuy[]) => beads.toSorted((a, b) => b.count - a.count)[0]!.bead.name
const offerNote = (b: BeadToBuy) =>
  b.shortGrams > 0
    ? `the supplier lacks ${showNumber(b.shortGrams, 1)} g`
    : b.unitPrice
      ? `${{ you: 'yours', supplier: 'supplier', box: 'box' }[b.unitPrice.from]}: ${money(b.unitPrice.price)} ` +
        `for ${showNumber(b.unitPrice.grams)} g`
      : ''

function set<K extends keyof Supply>(field: K, value: Supply[K]) {
  if (JSON.stringify(supply.value[field]) !== JSON.stringify(value))
    problem.value = store.commit('Supplies', [setStep(piece.value, ['supply', field], value as never)]) ?? ''
}
function setCost<K extends keyof Cost>(field: K, value: Cost[K]) {
  if (JSON.stringify(cost.value[field]) !== JSON.stringify(value))
    problem.value = store.commit('Cost', [setStep(piece.value, ['cost', field], value as never)]) ?? ''
}
function setSetting(part: Part, key: string, value: string | number | boolean) {
  if (part.settings[key] === value) return
  const next = { ...part.settings, [key]: value }
  const steps = settingSteps(piece.value, part, next, piece.value.tray[0]?.number ?? 0)
  problem.value = store.commit('Stitch', steps) ?? ''
}
function takeHelp(help: Help) {
  if (help.kind === 'needle') set('needle', help.id as Supply['needle'])
  else if (help.kind === 'thread') set('thread', help.id as Supply['thread'])
  else if (help.kind === 'single') set('doubled', false)
  else if (help.kind === 'fewer passes') set('reinforce', 0)
}
const threads = THREADS.map((t) => ({ value: t.id, title: `${t.name} · ${t.diameterMm.toFixed(2)} mm` }))
const needles = NEEDLES.map((n) => ({ value: n.id, title: `${n.name} · eye ${n.eyeMm.toFixed(2)} mm` }))
const bounds = (field: keyof Supply) => boundsOf(supplySchema, field)
/** A share is typed in hundredths. */
const percents = (field: 'spare' | 'cull') => ({
  least: bounds(field).least * 100,
  most: bounds(field).most * 100,
  whole: false,
})
const setPacks = (text: string) => {
  const grams = text
    .split(/[;\s]+/)
    .map((t) => Number(t.replace(',', '.').replace(/g$/, '')))
    .filter(Boolean)
  if (grams.length > 0 && grams.every((g) => Number.isFinite(g) && g > 0)) set('packGrams', grams)
  else problem.value = 'Type the packs you can buy in grams, like 5 10 28.'
}
const field = (e: Event) => (e.target as HTMLInputElement).value

// ---- the box
const holds = computed(() => box.holdings.some((h) => h.pieceId === id && h.kind === 'reserved'))
const taken = computed(() => box.holdings.some((h) => h.pieceId === id && h.kind === 'taken'))
const others = computed(() => {
  const spool = spoolOf(box.box, supply.value.thread, id)
  const clasp = closureIn(box.box, piece.value, id)
  return { spool, clasp }
})
function asks(what: 'reserve' | 'take') {
  const list = beadAsks(buy.value, what)
  const { spool, clasp } = others.value
  const thread = spool
    ? Math.min(freeFor(box.box, spool, id), Math.max(0, threadMm.value - takenBy(box.box, spool, id)))
    : 0
  if (spool && thread > 0) list.push({ shelfId: spool.id, amount: thread })
  const want = made.value * Math.max(1, piece.value.fit.closure.openings)
  const clasps = clasp ? Math.min(freeFor(box.box, clasp, id), Math.max(0, want - takenBy(box.box, clasp, id))) : 0
  if (clasp && clasps > 0) list.push({ shelfId: clasp.id, amount: clasps })
  return list
}
async function hold(what: 'reserve' | 'release' | 'take' | 'back') {
  says.value = ''
  const list = what === 'reserve' || what === 'take' ? asks(what) : []
  if ((what === 'reserve' || what === 'take') && list.length === 0) {
    says.value = 'The box has nothing of this piece that is free.'
    return
  }
  await saying(
    async () => {
      await box.change(id, what, list)
      says.value = {
        reserve: 'Set aside in the box for this piece.',
        release: 'Free again for other pieces.',
        take: 'Taken out of the box.',
        back: 'Put back in the box.',
      }[what]
    },
    (text) => {
      says.value = text
    },
  )
}
const ask = () => supplier.ask(buy.value.map((b) => b.bead))

// ---- prices of one's own
const ownPrice = (b: BeadToBuy) =>
  cost.value.beads.find((p) => p.number === b.bead.number) ?? { number: b.bead.number, grams: 10, price: 0 }
function setOwnPrice(b: BeadToBuy, more: { grams?: number; price?: number }) {
  const next = { ...ownPrice(b), ...more }
  const rest = cost.value.beads.filter((p) => p.number !== b.bead.number)
  setCost('beads', next.price > 0 ? [...rest, next] : rest)
}

// ---- what else is bought for the piece: end caps, jump rings, wire
const setFinding = (k: number, more: Partial<Cost['findings'][number]>) =>
  setCost(
    'findings',
    cost.value.findings.map((f, i) => (i === k ? { ...f, ...more } : f)),
  )
const addFinding = () =>
  setCost('findings', [
    ...cost.value.findings,
    { name: caps.value.length ? `End caps, ${caps.value[0]!.end.capMm} mm inside` : 'Jump rings', count: 2, price: 0 },
  ])

// ---- charts
const barColours = computed(() => buy.value.map((b) => b.bead.colour))
const beadTraces = computed(() => [
  {
    type: 'bar',
    orientation: 'h',
    y: buy.value.map((b) => `${b.bead.letter} ${b.bead.name} · ${requireSpec(b.bead.spec).name}`).toReversed(),
    x: buy.value.map((b) => b.count).toReversed(),
    marker: { color: barColours.value.toReversed(), line: { width: 1, color: 'rgba(120,100,80,0.7)' } },
    hovertemplate: '%{x} beads<extra></extra>',
  },
])
const costTraces = computed(() => [
  {
    type: 'bar',
    orientation: 'h',
    y: costing.value.lines.map((l) => l.name).toReversed(),
    x: costing.value.lines.map((l) => amountIn(l.most, costing.value.currency)).toReversed(),
    error_x: {
      type: 'data',
      symmetric: false,
      array: costing.value.lines.map(() => 0).toReversed(),
      arrayminus: costing.value.lines.map((l) => amountIn(l.most - l.least, costing.value.currency)).toReversed(),
    },
    hovertemplate: `%{x:.${requireCurrency(costing.value.currency).decimals}f}<extra></extra>`,
  },
])
const range = (least: number, most: number) => (least === most ? money(least) : `${money(least)} to ${money(most)}`)
</script>

<template>
  <main class="page">
    <section class="sum" aria-label="What is needed">
      <div v-if="!onlyCords">
        <span class="quiet">Beads to buy</span
        ><span class="figure" data-test="to-buy">{{ showNumber(toBuyGrams, 1) }} g</span
        ><span class="quiet"
          >of {{ showNumber(allGrams, 1) }} g with spare{{ packPrice > 0 ? `, ${money(packPrice)}` : '' }}</span
        >
      </div>
      <div>
        <span class="quiet">{{ cutting.what }} to cut</span><span class="figure">{{ long(cutting.mm) }}</span
        ><span class="quiet">{{ cutting.of }}</span>
      </div>
      <div v-if="!onlyCords" :class="{ wants: worst !== 'easy' }">
        <span class="quiet">Goes through</span><span class="figure word">{{ VERDICT[worst] }}</span
        ><span class="quiet">{{ cord || wiredOf ? 'without a needle' : `needle ${supply.needle}` }}</span>
      </div>
      <div v-if="caps.length">
        <span class="quiet">End caps, inside</span
        ><span class="figure">{{ showNumber(caps[0]!.end.capMm, 1) }} mm</span
        ><span class="quiet">two, {{ caps[0]!.end.cords }} cords bound</span>
      </div>
      <div>
        <span class="quiet">{{
          made > 1
            ? `Costs, for ${supply.batch} ${kind.pieces === 2 ? (supply.batch === 1 ? 'pair' : 'pairs') : 'pieces'}`
            : 'Costs you'
        }}</span><span class="figure">{{ money(costing.least) }}</span
        ><span class="quiet"
          >to {{ money(costing.most) }}{{ costing.unknown ? `, ${costing.unknown} without a price` : '' }}</span
        >
      </div>
      <div v-if="piece.fit.kind === 'earrings'" :class="{ wants: weight > EARRING_GRAMS.comfortable }">
        <span class="quiet">Each weighs</span><span class="figure">{{ showNumber(weight, 1) }} g</span
        ><span class="quiet">{{
          weight > EARRING_GRAMS.careful
            ? 'heavy: be careful'
            : weight > EARRING_GRAMS.comfortable
              ? 'more than comfortable'
              : 'comfortable'
        }}</span>
      </div>
    </section>

    <p v-if="taught.length" class="taught" data-test="taught">
      Reckoned with what your hand has taught: {{ taught.join('; ') }}. <NuxtLink to="/made">Where from</NuxtLink>
    </p>

    <section v-if="!onlyCords" class="need" aria-labelledby="beads">
      <h2 id="beads">Beads to buy</h2>
      <ul class="beads">
        <li v-for="b in buy" :key="b.bead.number" :data-bead="b.bead.letter">
          <span class="swatch tall" :style="{ '--bead': b.bead.colour }" />
          <span class="what"
            ><b>{{ b.bead.letter }} {{ b.bead.name }}</b
            ><span class="quiet"
              >{{ requireSpec(b.bead.spec).name }}, {{ b.bead.finish }} · {{ showNumber(b.count) }}
              {{ made > 1 ? 'in all' : 'in the piece' }}, {{ showNumber(b.need) }} with spare and culls =
              {{ showNumber(b.grams, 1) }}&nbsp;g</span
            ><span v-if="tubeNote(b)" class="quiet">{{ tubeNote(b) }}</span
            ><span v-if="b.tube && contested.has(b.tube.id)" class="warn"
              >Pieces want {{ showNumber(contested.get(b.tube.id)!.wanted, 1) }} g of this tube together;
              {{ showNumber(contested.get(b.tube.id)!.there, 1) }} g are there.</span
            ></span
          >
          <span class="amount"
            ><span class="figure">{{ b.buyGrams > 0 ? `${showNumber(b.buyGrams, 1)} g` : 'enough' }}</span
            ><span v-if="b.packs.length" class="quiet"
              >{{ packWords(b.packs) }}{{ b.price !== null ? ` · ${money(b.price)}` : '' }}</span
            ><span class="quiet">about {{ showNumber(b.left) }} left</span
            ><span v-if="offerNote(b)" class="quiet">{{ offerNote(b) }}</span></span
          >
        </li>
      </ul>
      <p v-if="buy.length === 0" class="soft">No beads in the pattern yet. Lay some on the mat.</p>
      <div class="acts">
        <button type="button" class="button" :disabled="supplier.asking || buy.length === 0" @click="ask">
          {{ supplier.asking ? 'Asking…' : 'Ask the supplier' }}
        </button>
        <button v-if="!taken" type="button" class="button" @click="hold(holds ? 'release' : 'reserve')">
          {{ holds ? 'Set free in the box' : 'Set aside in the box' }}
        </button>
        <button v-if="!taken" type="button" class="button" @click="hold('take')">Take out of the box</button>
        <button v-else type="button" class="button" @click="hold('back')">Put back in the box</button>
        <NuxtLink :to="`/shop?piece=${id}`" class="button plain">Shop for several</NuxtLink>
      </div>
      <p v-if="supplier.says" class="says" role="status">{{ supplier.says }}</p>
      <p v-if="says" class="says" role="status">{{ says }}</p>
      <p v-if="account.account && account.account.settings.currency !== cost.currency" class="quiet">
        Prices of box and supplier are in {{ account.account.settings.currency }} and are left out here.
      </p>
      <div class="fields three">
        <NumberField
          :model-value="supply.batch"
          :label="kind.pieces === 2 ? 'Pairs to make' : 'How many to make'"
          :bounds="bounds('batch')"
          @update:model-value="(n) => set('batch', n)"
        />
        <NumberField
          :model-value="supply.spare * 100"
          label="Spare"
          unit="%"
          :bounds="percents('spare')"
          @update:model-value="(n) => set('spare', n / 100)"
        />
        <NumberField
          :model-value="supply.cull * 100"
          label="Culls in a bag"
          unit="%"
          :bounds="percents('cull')"
          @update:model-value="(n) => set('cull', n / 100)"
        />
        <VTextField
          :model-value="supply.packGrams.join(' ')"
          label="Packs sold, g"
          @change="(e: Event) => setPacks(field(e))"
        />
        <VCheckbox
          :model-value="supply.hanks"
          label="Hanks too"
          @update:model-value="(v) => set('hanks', Boolean(v))"
        />
      </div>
      <p v-if="problem" class="warn" role="alert">{{ problem }}</p>
      <PlotChart
        v-if="buy.length"
        title="Beads by colour and size, as a chart"
        :summary="`Beads of each colour and size; most of ${mostOf(buy)}.`"
        :traces="beadTraces"
        :layout="{ xaxis: { title: { text: 'beads' } } }"
        :height="80 + 30 * buy.length"
        :head="['Bead', 'Size', 'Beads', 'Grams']"
        :rows="
          buy.map((b) => [
            `${b.bead.letter} ${b.bead.name}`,
            requireSpec(b.bead.spec).name,
            showNumber(b.count),
            showNumber(b.grams, 1),
          ])
        "
      />
    </section>

    <section class="need" aria-labelledby="cut">
      <h2 id="cut">What to cut</h2>
      <ul class="cuts">
        <li v-for="cut in cuts" :key="`${cut.part} ${cut.id}`">
          <span class="figure">{{ long(cut.totalMm * made) }}</span>
          <span class="what">
            <b
              >{{ cut.name }}<template v-if="piece.parts.length > 1 && cut.part">, {{ cut.part }}</template
              >:
              <template v-if="cut.pieces > 1 && cut.joins === 0"
                >{{ cut.pieces * made }} of {{ length(cut.cutMm) }}</template
              ><template v-else-if="cut.joins === 0">{{
                made === 1 ? 'one length' : `${made} of ${length(cut.cutMm)}`
              }}</template
              ><template v-else
                >{{ cut.pieces * made }} lengths of up to {{ long(cut.cutMm) }}, {{ cut.joins * made }}
                {{ cut.joins * made === 1 ? 'join' : 'joins' }}</template
              ></b
            >
            <span class="quiet"
              >{{ cut.formula
              }}<template v-if="cut.spareMm >= 1"
                >; {{ length(cut.spareMm) }} of {{ made > 1 ? 'each' : 'the whole' }} is to spare</template
              ></span
            >
          </span>
        </li>
      </ul>
      <div v-for="wire in wires" :key="wire.name" class="cap" data-test="wire">
        <b>{{ wire.name }}: {{ long(wire.totalMm) }} in all</b>
        <span class="quiet"
          >{{ wire.cuts.reduce((sum, c) => sum + c.count, 0) }}
          {{ wire.cuts.reduce((sum, c) => sum + c.count, 0) === 1 ? 'length' : 'lengths' }}; a spool of
          {{ long(wire.spoolMm) }}{{ wire.spools > 1 ? `, ${wire.spools} of them,` : '' }} holds it.</span
        >
      </div>
      <div v-for="ring in rings" :key="ring.name" class="cap">
        <b>{{ ring.count * made }} × {{ ring.name.toLowerCase() }}, to join the parts</b>
      </div>
      <p v-if="!cord && !onlyCords && !wiredOf && (others.spool || others.clasp)" class="quiet">
        In the box:
        {{
          [
            others.spool ? `${long(amountOf(others.spool.value))} of ${requireThread(supply.thread).name}` : '',
            others.clasp ? `${amountOf(others.clasp.value)} × ${closureName(piece.fit.closure).toLowerCase()}` : '',
          ]
            .filter(Boolean)
            .join(', ')
        }}.
      </p>
      <div v-for="c in caps" :key="c.part.id" class="cap">
        <b
          >Bind the ends<template v-if="piece.parts.length > 1"> of {{ c.part.name }}</template
          >, and two end caps at least {{ showNumber(c.end.capMm, 1) }} mm inside</b
        >
        <span class="quiet"
          >{{ c.end.cords }} cords pack into {{ showNumber(c.end.packedMm, 2) }} mm,
          {{ showNumber(c.end.boundMm, 2) }} mm with binding. Bind each end tightly with thread over
          {{ BIND_OVER_MM.least }}–{{ BIND_OVER_MM.most }} mm and glue it before you cut; work with the window open and
          follow the glue’s own directions.</span
        >
      </div>
      <div v-if="!cord && !onlyCords && !wiredOf" class="fields">
        <VSelect
          :model-value="supply.thread"
          :items="threads"
          label="Thread"
          @update:model-value="(v: Supply['thread']) => set('thread', v)"
        />
        <VSelect
          :model-value="supply.needle"
          :items="needles"
          label="Needle"
          @update:model-value="(v: Supply['needle']) => set('needle', v)"
        />
      </div>
      <ToolList :piece="piece" :made="made" />
      <h2 v-if="!onlyCords">Will it go through?</h2>
      <HoleAnswer
        v-for="check in checks"
        :key="`${check.spec} ${check.where}`"
        :check="check"
        :supply="supply"
        :letters="lettersOf(check.spec)"
        @help="takeHelp"
      />
      <details class="more">
        <summary>Tails, lengths, extra passes</summary>
        <div class="fields">
          <LengthField
            :model-value="supply.workingLengthMm"
            label="Longest you like to handle"
            :bounds="bounds('workingLengthMm')"
            @update:model-value="(mm) => set('workingLengthMm', mm)"
          />
          <LengthField
            :model-value="supply.tailMm"
            label="Tail at a join"
            :bounds="bounds('tailMm')"
            @update:model-value="(mm) => set('tailMm', mm)"
          />
          <LengthField
            :model-value="supply.claspTailMm"
            label="Tail for a closure"
            :bounds="bounds('claspTailMm')"
            @update:model-value="(mm) => set('claspTailMm', mm)"
          />
          <VSelect
            :model-value="supply.reinforce"
            :items="[0, 1, 2, 3, 4]"
            label="Extra passes to reinforce"
            @update:model-value="(v: number) => set('reinforce', v)"
          />
          <VSelect
            :model-value="supply.sewPasses"
            :items="[0, 1, 2, 3, 4, 5, 6]"
            label="Extra passes at the closure"
            @update:model-value="(v: number) => set('sewPasses', v)"
          />
          <VSelect
            v-if="piece.fit.closure.kind === 'elastic'"
            :model-value="supply.elastics"
            :items="[1, 2, 3, 4]"
            label="Elastics side by side"
            @update:model-value="(v: number) => set('elastics', v)"
          />
          <VSelect
            v-if="piece.fit.closure.kind === 'ear-wire'"
            :model-value="supply.earWireGauge"
            :items="[
              { value: 0, title: 'bought' },
              ...EAR_WIRE_GAUGES.map((g) => ({ value: g, title: `bent of ${g} gauge wire` })),
            ]"
            label="Ear wires"
            @update:model-value="(v: number) => set('earWireGauge', v)"
          />
          <VCheckbox
            :model-value="supply.doubled"
            label="Doubled thread"
            @update:model-value="(v) => set('doubled', Boolean(v))"
          />
        </div>
        <template v-for="part in piece.parts" :key="part.id">
          <h3 v-if="techniqueOf(part).fields.length">{{ techniqueOf(part).name }}</h3>
          <div class="fields">
            <StitchSettings
              :technique="part.technique"
              :settings="part.settings"
              @change="(key, value) => setSetting(part, key, value)"
            />
          </div>
        </template>
      </details>
    </section>

    <section class="need" aria-labelledby="cost">
      <h2 id="cost">Cost and time</h2>
      <table class="costs">
        <tbody>
          <tr v-for="l in costing.lines" :key="l.id">
            <th scope="row">
              {{ l.name }}<span v-if="l.unknown" class="warn none">{{ l.unknown }} without a price</span>
            </th>
            <td class="number">{{ range(l.least, l.most) }}</td>
          </tr>
          <tr class="total">
            <th scope="row">Costs you</th>
            <td class="number">{{ range(costing.least, costing.most) }}</td>
          </tr>
          <tr v-if="costing.hours.most > 0">
            <th scope="row">Time at the beads</th>
            <td class="number">
              {{ showNumber(costing.hours.least, 1) }} – {{ showNumber(costing.hours.most, 1) }} h, and
              {{ costing.prepareMinutes }} min before
            </td>
          </tr>
          <tr v-if="costing.margin">
            <th scope="row">Left of what you ask, {{ money(costing.asked) }}</th>
            <td class="number" :class="{ warn: costing.margin.least < 0 }">
              {{ range(costing.margin.least, costing.margin.most) }}
            </td>
          </tr>
        </tbody>
      </table>
      <p class="quiet">Materials are what is worked in, not what is bought. The price is your decision.</p>
      <div class="fields">
        <MoneyField
          :model-value="cost.asked"
          :currency="cost.currency"
          :label="kind.pieces === 2 ? 'You ask for a pair' : 'You ask for one'"
          @update:model-value="(v) => setCost('asked', v)"
        />
        <MoneyField
          :model-value="cost.hourly"
          :currency="cost.currency"
          label="Your hour"
          @update:model-value="(v) => setCost('hourly', v)"
        />
      </div>
      <details class="more">
        <summary>Prices, speed, currency</summary>
        <div class="fields">
          <template v-for="b in buy" :key="b.bead.number"
            ><MoneyField
              :model-value="ownPrice(b).price"
              :currency="cost.currency"
              :label="`${b.bead.letter} ${b.bead.name}, ${ownPrice(b).grams} g`"
              @update:model-value="(v) => setOwnPrice(b, { price: v })" /><VSelect
              :model-value="ownPrice(b).grams"
              :items="[5, 10, 28, 50, 100, 500]"
              :label="`for so many grams of ${b.bead.letter}`"
              @update:model-value="(g: number) => setOwnPrice(b, { grams: g })"
          /></template>
          <MoneyField
            :model-value="cost.threadPrice"
            :currency="cost.currency"
            :label="`Thread, ${long(cost.threadMm)}`"
            @update:model-value="(v) => setCost('threadPrice', v)"
          />
          <LengthField
            :model-value="cost.threadMm"
            label="for so much thread"
            :bounds="boundsOf(costSchema, 'threadMm')"
            @update:model-value="(mm) => setCost('threadMm', mm)"
          />
          <MoneyField
            v-if="piece.fit.closure.kind !== 'none'"
            :model-value="cost.closure"
            :currency="cost.currency"
            :label="`${closureName(piece.fit.closure)}${kind.pieces === 2 ? ', a pair' : ''}`"
            @update:model-value="(v) => setCost('closure', v)"
          />
          <NumberField
            :model-value="cost.prepareMinutes"
            label="Minutes to prepare"
            :bounds="boundsOf(costSchema, 'prepareMinutes')"
            @update:model-value="(n) => setCost('prepareMinutes', n)"
          />
          <NumberField
            :model-value="cost.beadsPerHourLeast"
            label="Beads an hour, slow"
            :bounds="boundsOf(costSchema, 'beadsPerHourLeast')"
            @update:model-value="(n) => setCost('beadsPerHourLeast', n)"
          />
          <NumberField
            :model-value="cost.beadsPerHourMost"
            label="Beads an hour, quick"
            :bounds="boundsOf(costSchema, 'beadsPerHourMost')"
            @update:model-value="(n) => setCost('beadsPerHourMost', n)"
          />
          <template v-for="(f, k) in cost.findings" :key="k">
            <VTextField
              :model-value="f.name"
              :label="`Finding ${k + 1}`"
              maxlength="60"
              @change="(e: Event) => field(e).trim() && setFinding(k, { name: field(e).trim() })"
            />
            <div class="finding">
              <NumberField
                :model-value="f.count"
                :label="`So many of finding ${k + 1}`"
                :bounds="boundsOf(findingSchema, 'count')"
                @update:model-value="(n) => setFinding(k, { count: n })"
              />
              <MoneyField
                :model-value="f.price"
                :currency="cost.currency"
                :label="`Each, finding ${k + 1}`"
                @update:model-value="(v) => setFinding(k, { price: v })"
              />
              <button
                type="button"
                class="link"
                :aria-label="`Take finding ${k + 1} off`"
                @click="
                  setCost(
                    'findings',
                    cost.findings.filter((_, i) => i !== k),
                  )
                "
              >
                Take off
              </button>
            </div>
          </template>
          <button v-if="cost.findings.length < 40" type="button" class="button" @click="addFinding">
            Add a finding
          </button>
          <VSelect
            :model-value="cost.currency"
            :items="CURRENCIES.map((c) => ({ value: c.code, title: `${c.name}, ${c.sign}` }))"
            label="Currency"
            @update:model-value="(v: Cost['currency']) => setCost('currency', v)"
          />
        </div>
      </details>
      <PlotChart
        title="What it is made up of, as a chart"
        :summary="`Parts of the cost, ${money(costing.least)} to ${money(costing.most)}.`"
        :traces="costTraces"
        :layout="{ xaxis: { title: { text: cost.currency } } }"
        :height="90 + 30 * costing.lines.length"
        :head="['Part', 'Least', 'Most']"
        :rows="costing.lines.map((l) => [l.name, money(l.least), money(l.most)])"
      />
    </section>
  </main>
</template>

<style scoped>
.page {
  padding: 12px 24px 32px;
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(330px, 1fr));
  gap: 24px 32px;
  align-items: start;
  max-width: 1480px;
  margin: 0 auto;
  width: 100%;
}
.sum {
  grid-column: 1 / -1;
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(150px, 1fr));
  gap: 12px;
  background: var(--paper);
  border-radius: var(--round);
  padding: 16px 20px;
}
.taught {
  grid-column: 1 / -1;
  padding: 10px 16px;
  border-radius: var(--round-in);
  background: var(--verdigris-wash);
  color: var(--verdigris);
}
.sum > div {
  display: grid;
  gap: 4px;
  align-content: start;
}
.sum .figure {
  font-size: 30px;
  white-space: nowrap;
}
.sum .wants .figure {
  color: var(--marigold);
}
.need {
  display: grid;
  gap: 16px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
.beads li {
  display: grid;
  grid-template-columns: auto 1fr auto;
  gap: 12px;
  align-items: center;
  padding: 10px 0;
  border-top: 1px solid var(--line);
}
.tall {
  width: 22px;
  height: 30px;
  border-radius: 7px;
}
.finding {
  grid-column: 1 / -1;
  display: grid;
  grid-template-columns: 1fr 1fr auto;
  gap: 8px;
  align-items: center;
}
.cap {
  display: grid;
  gap: 2px;
  padding: 12px 14px;
  background: var(--paper);
  border-radius: var(--round-in);
}
.what,
.amount {
  display: grid;
  gap: 2px;
}
.amount {
  justify-items: end;
  text-align: end;
  max-width: 160px;
}
.beads .figure {
  font-size: 24px;
  white-space: nowrap;
}
.cuts li {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 16px;
  align-items: center;
  padding: 10px 0;
  border-top: 1px solid var(--line);
}
.cuts .figure {
  font-size: 32px;
  min-width: 92px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.acts .button {
  padding: 0 14px;
  font-size: 14.5px;
}
.says {
  background: var(--verdigris-wash);
  color: var(--verdigris);
  padding: 10px 14px;
  border-radius: 10px;
  font-size: 14.5px;
}
.fields {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 16px 12px;
  align-items: start;
}
.three {
  grid-template-columns: repeat(3, 1fr);
}
.more summary {
  cursor: pointer;
  color: var(--verdigris);
  min-height: 32px;
}
.more .fields {
  padding-top: 12px;
}
.more h3 {
  padding-top: 14px;
}
.costs {
  width: 100%;
}
.costs th,
.costs td {
  padding: 8px 0;
  border-top: 1px solid var(--line);
  vertical-align: top;
}
.costs th {
  color: var(--ink);
}
.none {
  margin-left: 8px;
  white-space: nowrap;
}
.total th,
.total td {
  font-weight: 700;
}
.warn {
  color: var(--marigold);
  font-size: 14px;
}
@media (width >= 1160px) {
  .page {
    grid-template-columns: 1.25fr 1fr 1fr;
  }
}
@media (width <= 720px) {
  .page {
    grid-template-columns: minmax(0, 1fr);
    padding: 8px 14px 24px;
  }
  .sum {
    grid-template-columns: 1fr 1fr;
    padding: 12px 14px;
  }
  .sum .figure {
    font-size: 26px;
  }
  .amount {
    max-width: 116px;
  }
  .three {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
