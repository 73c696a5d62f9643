<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import { DEFAULT_SPEC, requireSpec, shapeName } from '#core/bead/spec'
import { readBoxCsv, writeBoxCsv, type BadLine } from '#core/format/box-csv'
import { readPalette, writePalette } from '#core/format/palette'
import { closureOf } from '#core/wear/closure'
import { showMoney } from '#core/money/money'
import { sameLook } from '#core/piece/tray'
import { amountOf, isStock, shelfValueSchema, type ShelfBead, type ShelfItem, type Stock } from '#core/shelf/shelf'
import { contests } from '#core/supply/box'
import { requireThread } from '#core/thread/catalogue'
import { showNumber } from '#core/units/length'
import { piecesAnswer } from '#core/contract/piece'
import { api } from '../composables/api'
import { useLengths } from '../composables/lengths'
import { saveFile } from '../composables/save-file'
import { saying } from '../composables/saying'
import { useAccount } from '../stores/account'
import { useBox } from '../stores/box'
import { useShelf } from '../stores/shelf'
import PlotChart from '../chart/PlotChart.vue'
import BoxNav from '../components/BoxNav.vue'
import PutBackBar from '../components/PutBackBar.vue'
import StockDialog from '../components/StockDialog.vue'
import WeighDialog from '../components/WeighDialog.vue'
import WorkshopHead from '../components/WorkshopHead.vue'

useHead({ title: 'Box · Weben' })
const shelf = useShelf()
const box = useBox()
const account = useAccount()
const { long, length } = useLengths()
const says = ref('')
const known = ref(false)
const bad = ref<readonly BadLine[]>([])
const putBack = ref<InstanceType<typeof PutBackBar>>()
const names = ref(new Map<string, string>())
const currency = computed(() => account.account?.settings.currency ?? 'EUR')

function guarded(work: () => Promise<unknown>) {
  says.value = ''
  bad.value = []
  return saying(work, (text) => {
    says.value = text
  })
}
onMounted(async () => {
  await guarded(async () => {
    const [, list] = await Promise.all([box.fetch(), api(piecesAnswer, 'piece')])
    names.value = new Map(list.pieces.map((p) => [p.id, p.name]))
  })
  known.value = true
})

const bySize = computed(() => {
  const sizes = new Map<string, (typeof shelf.beads)[number][]>()
  for (const item of shelf.beads) sizes.set(item.value.spec, [...(sizes.get(item.value.spec) ?? []), item])
  return [...sizes].map(([spec, items]) => ({ spec: requireSpec(spec), items }))
})
const holdsOf = (id: string) => box.holdings.filter((h) => h.shelfId === id && h.kind === 'reserved')
const reserved = (id: string) => holdsOf(id).reduce((sum, h) => sum + h.amount, 0)
const contested = computed(() => contests(box.box))
const nameOf = (pieceId: string) => names.value.get(pieceId) ?? 'a piece that was put away'
const empty = computed(
  () =>
    known.value && !shelf.items.some((i) => isStock(i.value) || ['spec', 'stamp', 'recipe'].includes(i.value.kind)),
)
/** Stamps and recipes: what was made and is kept for other pieces. */
const keptLists = computed(() =>
  [
    {
      title: 'Stamps',
      items: shelf.stamps.map((item) => ({ item, what: `${item.value.columns} × ${item.value.rows} beads` })),
    },
    {
      title: 'Recipes',
      items: shelf.recipes.map((item) => ({ item, what: 'worked in any piece, from the steps on its mat' })),
    },
  ].filter(({ items }) => items.length > 0),
)
const beadCount = (value: ShelfBead) => Math.round(value.grams * requireSpec(value.spec).perGram)

// ---- put in, change, weigh
const editing = ref<(ShelfItem & { value: Stock }) | null>(null)
const draft = ref<Stock | null>(null)
const weighing = ref<(ShelfItem & { value: ShelfBead }) | null>(null)
const begin = (value: unknown) => {
  editing.value = null
  draft.value = shelfValueSchema.parse(value) as Stock
}
const addBeads = () =>
  begin({ kind: 'bead', name: 'New beads', spec: DEFAULT_SPEC, colour: '#6d8f5a', finish: 'opaque' })
const addThread = () => begin({ kind: 'thread', name: 'New spool', thread: 'gel-6', lengthMm: 50_000 })
const addFinding = () => begin({ kind: 'finding', name: 'New finding', count: 1 })
const edit = (item: ShelfItem & { value: Stock }) => {
  editing.value = item
  draft.value = item.value
}
const keep = (value: Stock) =>
  guarded(async () => {
    if (editing.value) await shelf.change(editing.value, value)
    else await shelf.keep([value])
    draft.value = null
  })
const keepWeight = (value: ShelfBead) =>
  guarded(async () => {
    await shelf.change(weighing.value!, value)
    weighing.value = null
  })

// ---- files
const stock = computed(() => shelf.items.flatMap((i) => (isStock(i.value) ? [i.value] : [])))
const csvOut = () => saveFile('my-box.csv', writeBoxCsv(stock.value, currency.value), 'text/csv')
const sameThing = (a: Stock, b: Stock) =>
  a.kind === b.kind &&
  (a.kind === 'bead' && b.kind === 'bead' ? sameLook(a, b) && a.name === b.name : a.name === b.name)
async function csvIn(event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (!file) return
  const read = readBoxCsv(await file.text(), currency.value)
  await guarded(async () => {
    const fresh: Stock[] = []
    let changed = 0
    for (const value of read.stock) {
      const there = shelf.items.find((i) => isStock(i.value) && sameThing(i.value, value)) as
        (ShelfItem & { value: Stock }) | undefined
      if (!there) fresh.push(value)
      else if (JSON.stringify(there.value) !== JSON.stringify(value)) {
        await shelf.change(there, value)
        changed++
      }
    }
    for (let at = 0; at < fresh.length; at += 200) await shelf.keep(fresh.slice(at, at + 200))
    const alike = read.stock.length - fresh.length - changed
    const lines = read.bad.length === 1 ? 'line was' : 'lines were'
    const unread = read.bad.length > 0 ? `; ${read.bad.length} ${lines} not read` : ''
    says.value = `${fresh.length} put in, ${changed} changed, ${alike} as they were${unread}.`
  })
  bad.value = read.bad
}
const paletteOut = () =>
  saveFile(
    'my-box.gpl',
    writePalette(
      'My box',
      shelf.beads.map((i) => i.value),
    ),
    'text/plain',
  )
async function paletteIn(event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (!file) return
  const palette = readPalette(await file.text(), DEFAULT_SPEC)
  if (!palette.ok) {
    says.value = palette.problems[0]!.says
    return
  }
  const fresh = palette.value.beads.filter((b) => !shelf.beads.some((i) => sameLook(i.value, b)))
  await guarded(async () => {
    if (fresh.length > 0) await shelf.keep(fresh.map((b) => ({ kind: 'bead' as const, ...b })))
  })
  if (!says.value) says.value = `${fresh.length} of ${palette.value.beads.length} colours are new and were put in.`
}

// ---- chart: what is free and what is set aside, tube by tube
const charted = computed(() =>
  shelf.beads
    .filter((i) => i.value.grams > 0)
    .toSorted((a, b) => b.value.grams - a.value.grams)
    .slice(0, 24),
)
const traces = computed(() => {
  const y = charted.value.map((i) => `${i.value.name} · ${requireSpec(i.value.spec).name}`).toReversed()
  const aside = charted.value.map((i) => Math.min(i.value.grams, reserved(i.id)))
  return [
    {
      type: 'bar',
      orientation: 'h',
      name: 'free',
      y,
      x: charted.value.map((i, k) => i.value.grams - aside[k]!).toReversed(),
      marker: {
        color: charted.value.map((i) => i.value.colour).toReversed(),
        line: { width: 1, color: 'rgba(120,100,80,0.7)' },
      },
      hovertemplate: '%{x:.1f} g free<extra></extra>',
    },
    {
      type: 'bar',
      orientation: 'h',
      name: 'set aside',
      y,
      x: aside.toReversed(),
      marker: { color: 'rgba(140,120,100,0.35)', pattern: { shape: '/', size: 6 } },
      hovertemplate: '%{x:.1f} g set aside<extra></extra>',
    },
  ]
})
</script>

<template>
  <div>
    <WorkshopHead title="Box"><NuxtLink to="/" class="button plain">Back</NuxtLink></WorkshopHead>
    <main class="page">
      <BoxNav />
      <div class="acts">
        <button type="button" class="button main" @click="addBeads">Put beads in</button>
        <button type="button" class="button" @click="addThread">Thread</button>
        <button type="button" class="button" @click="addFinding">Finding</button>
        <span class="files">
          <label class="button plain"
            >CSV in<input type="file" accept=".csv,text/csv" class="hidden" aria-label="CSV in" @change="csvIn"
          /></label>
          <button type="button" class="button plain" :disabled="stock.length === 0" @click="csvOut">CSV out</button>
          <label class="button plain"
            >Palette in<input
              type="file"
              accept=".gpl,text/plain"
              class="hidden"
              aria-label="Palette in"
              @change="paletteIn"
          /></label>
          <button type="button" class="button plain" :disabled="shelf.beads.length === 0" @click="paletteOut">
            Palette out
          </button>
        </span>
      </div>
      <p v-if="says" class="says" role="status">{{ says }}</p>
      <ol v-if="bad.length" class="bad" aria-label="Lines that were not read">
        <li v-for="b in bad" :key="b.line">
          <b>Line {{ b.line }}</b
          ><span class="quiet">{{ b.text }}</span
          ><span>{{ b.says }}</span>
        </li>
      </ol>
      <p v-if="empty" class="soft">
        The box is empty. Put a tube in and weigh it, read in a CSV file or a palette, or keep a bead from the tray of
        a piece.
      </p>
      <section v-if="contested.length" class="contested" aria-labelledby="contested">
        <h2 id="contested">Wanted twice</h2>
        <p v-for="c in contested" :key="c.item.id">
          <b>{{ c.item.value.name }}</b>: {{ c.pieceIds.map(nameOf).join(' and ') }} want
          {{ showNumber(c.wanted, 1) }} together, {{ showNumber(c.there, 1) }}
          {{ c.item.value.kind === 'bead' ? 'g' : '' }} are there.
        </p>
      </section>
      <section v-for="size in bySize" :key="size.spec.id">
        <h2>{{ size.spec.name }}</h2>
        <ul>
          <li v-for="item in size.items" :key="item.id" :data-item="item.value.name">
            <span class="swatch tall" :style="{ '--bead': item.value.colour }" />
            <span class="what"
              ><b>{{ item.value.name }}</b
              ><span class="quiet"
                >{{ item.value.finish
                }}{{
                  item.value.price ? ` · ${showMoney(item.value.price, currency)} for ${item.value.packGrams} g` : ''
                }}</span
              ><span v-if="reserved(item.id) > 0" class="aside"
                >{{ showNumber(reserved(item.id), 1) }} g for
                {{
                  holdsOf(item.id)
                    .map((h) => nameOf(h.pieceId))
                    .join(', ')
                }}</span
              ></span
            >
            <span class="amount"
              ><span class="figure">{{ showNumber(item.value.grams, 1) }} g</span
              ><span class="quiet">{{ showNumber(beadCount(item.value)) }} beads</span></span
            >
            <span class="links"
              ><button type="button" class="link" :aria-label="`Weigh ${item.value.name}`" @click="weighing = item">
                Weigh</button
              ><button type="button" class="link" :aria-label="`Change ${item.value.name}`" @click="edit(item)">
                Change</button
              ><button
                type="button"
                class="link"
                :aria-label="`Take ${item.value.name} out`"
                @click="guarded(() => putBack!.takeOff(item))"
              >
                Take out
              </button></span
            >
          </li>
        </ul>
      </section>
      <section v-if="shelf.threads.length || shelf.findings.length">
        <h2>Threads and findings</h2>
        <ul>
          <li v-for="item in shelf.threads" :key="item.id" :data-item="item.value.name">
            <span class="spool" aria-hidden="true" /><span class="what"
              ><b>{{ item.value.name }}</b
              ><span class="quiet">{{ requireThread(item.value.thread).name }}</span
              ><span v-if="reserved(item.id) > 0" class="aside">{{ long(reserved(item.id)) }} set aside</span></span
            ><span class="amount"
              ><span class="figure">{{ long(item.value.lengthMm) }}</span></span
            ><span class="links"
              ><button type="button" class="link" :aria-label="`Change ${item.value.name}`" @click="edit(item)">
                Change</button
              ><button
                type="button"
                class="link"
                :aria-label="`Take ${item.value.name} out`"
                @click="guarded(() => putBack!.takeOff(item))"
              >
                Take out
              </button></span
            >
          </li>
          <li v-for="item in shelf.findings" :key="item.id" :data-item="item.value.name">
            <span class="clasp" aria-hidden="true" /><span class="what"
              ><b>{{ item.value.name }}</b
              ><span class="quiet">{{
                item.value.closure
                  ? `${closureOf(item.value.closure.kind).name}, ${length(item.value.closure.lengthMm, 1)} closed`
                  : 'finding'
              }}</span
              ><span v-if="reserved(item.id) > 0" class="aside">{{ reserved(item.id) }} set aside</span></span
            ><span class="amount"
              ><span class="figure">{{ amountOf(item.value) }}</span></span
            ><span class="links"
              ><button type="button" class="link" :aria-label="`Change ${item.value.name}`" @click="edit(item)">
                Change</button
              ><button
                type="button"
                class="link"
                :aria-label="`Take ${item.value.name} out`"
                @click="guarded(() => putBack!.takeOff(item))"
              >
                Take out
              </button></span
            >
          </li>
        </ul>
      </section>
      <PlotChart
        v-if="charted.length"
        title="What the tubes hold, as a chart"
        :summary="`Grams in ${charted.length} tubes, and how much of each is set aside.`"
        :traces="traces"
        :layout="{ barmode: 'stack', xaxis: { title: { text: 'grams; hatched: set aside' } } }"
        :height="90 + 24 * charted.length"
        :head="['Tube', 'Grams', 'Set aside']"
        :rows="
          charted.map((i) => [
            `${i.value.name}, ${requireSpec(i.value.spec).name}`,
            showNumber(i.value.grams, 1),
            showNumber(reserved(i.id), 1),
          ])
        "
      />
      <section v-if="shelf.specs.length">
        <h2>Sizes of my own</h2>
        <ul>
          <li v-for="item in shelf.specs" :key="item.id">
            <span /><span class="what"
              ><b>{{ item.value.name }}</b
              ><span class="quiet"
                >{{ shapeName(requireSpec(item.value.spec).shape) }}, {{ requireSpec(item.value.spec).d }} ×
                {{ requireSpec(item.value.spec).l }} mm, hole {{ requireSpec(item.value.spec).h }} mm,
                {{ requireSpec(item.value.spec).perGram }} in a gram</span
              ></span
            ><span /><span class="links"
              ><button
                type="button"
                class="link"
                :aria-label="`Take ${item.value.name} out`"
                @click="guarded(() => putBack!.takeOff(item))"
              >
                Take out
              </button></span
            >
          </li>
        </ul>
      </section>
      <section v-for="list in keptLists" :key="list.title">
        <h2>{{ list.title }}</h2>
        <ul>
          <li v-for="{ item, what } in list.items" :key="item.id">
            <span /><span class="what"
              ><b>{{ item.value.name }}</b
              ><span class="quiet">{{ what }}</span></span
            ><span /><span class="links"
              ><button
                type="button"
                class="link"
                :aria-label="`Throw ${item.value.name} away`"
                @click="guarded(() => putBack!.takeOff(item))"
              >
                Throw away
              </button></span
            >
          </li>
        </ul>
      </section>
      <StockDialog :value="draft" :currency="currency" :fresh="editing === null" @close="draft = null" @keep="keep" />
      <PutBackBar ref="putBack" />
      <WeighDialog :item="weighing" @close="weighing = null" @keep="keepWeight" />
    </main>
  </div>
</template>

<style scoped>
.page {
  max-width: 1180px;
  margin: 0 auto;
  padding: 0 28px 40px;
  display: grid;
  gap: 22px;
}
.acts {
  display: flex;
  gap: 10px;
  flex-wrap: wrap;
  align-items: center;
}
.files {
  margin-left: auto;
  display: flex;
  flex-wrap: wrap;
}
.files .button {
  padding: 0 10px;
  font-size: 14.5px;
}
.says {
  background: var(--verdigris-wash);
  color: var(--verdigris);
  padding: 10px 14px;
  border-radius: 10px;
}
.bad {
  margin: 0;
  padding: 12px 14px;
  list-style: none;
  display: grid;
  gap: 10px;
  background: var(--marigold-wash);
  color: var(--marigold);
  border-radius: 10px;
  font-size: 14.5px;
}
.bad li {
  display: grid;
  gap: 2px;
  border: 0;
  padding: 0;
  grid-template-columns: 1fr;
}
.bad .quiet {
  color: inherit;
  overflow-wrap: anywhere;
}
.contested {
  background: var(--marigold-wash);
  color: var(--marigold);
  border-radius: var(--round);
  padding: 14px 18px;
  gap: 4px;
}
section {
  display: grid;
  gap: 8px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(330px, 1fr));
  gap: 0 36px;
}
ul li {
  display: grid;
  grid-template-columns: 22px 1fr auto;
  gap: 2px 12px;
  align-items: center;
  padding: 8px 0;
  border-bottom: 1px solid var(--line);
}
.tall {
  width: 20px;
  height: 30px;
  border-radius: 6px;
}
.spool,
.clasp {
  width: 20px;
  height: 20px;
  border-radius: 50%;
  border: 5px solid var(--edge);
}
.spool {
  border-radius: 5px;
  border-width: 6px 3px;
}
.what {
  display: grid;
}
.aside {
  font-size: 13.5px;
  color: var(--verdigris);
}
.amount {
  display: grid;
  justify-items: end;
  gap: 3px;
}
.amount .figure {
  font-size: 22px;
}
.links {
  grid-column: 2 / -1;
  display: flex;
  gap: 18px;
}
.link {
  min-height: 32px;
  font-size: 14px;
}
@media (width <= 600px) {
  .page {
    padding: 0 14px 28px;
  }
  ul {
    grid-template-columns: minmax(0, 1fr);
  }
  .files {
    margin: 0;
  }
}
</style>
