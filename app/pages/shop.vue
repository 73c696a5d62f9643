<script setup lang="ts">
import { computed, onMounted, ref, shallowRef } from 'vue'
import { requireSpec } from '#core/bead/spec'
import { packWords, shoppingCsv } from '#core/format/shopping-csv'
import { showMoney } from '#core/money/money'
import { contests } from '#core/supply/box'
import { shoppingList } from '#core/supply/shopping'
import { showNumber } from '#core/units/length'
import { listOfPieces, openPiece, type Opened } from '../composables/pieces'
import { useLengths } from '../composables/lengths'
import { saveFile } from '../composables/save-file'
import { saying } from '../composables/saying'
import { useAccount } from '../stores/account'
import { useBox } from '../stores/box'
import { useSupplier } from '../stores/supplier'
import BoxNav from '../components/BoxNav.vue'
import WorkshopHead from '../components/WorkshopHead.vue'

useHead({ title: 'Shopping · Weben' })
const box = useBox()
const supplier = useSupplier()
const account = useAccount()
const { long } = useLengths()
const route = useRoute()
const all = ref<readonly { id: string; name: string }[]>([])
const opened = shallowRef<readonly Opened[]>([])
const chosen = ref<readonly string[]>([])
const says = ref('')
const known = ref(false)
const guarded = (work: () => Promise<unknown>) => {
  says.value = ''
  return saying(work, (text) => {
    says.value = text
  })
}

onMounted(async () => {
  await guarded(async () => {
    const [list] = await Promise.all([listOfPieces(), box.fetch()])
    all.value = list
    const first = String(route.query.piece ?? '')
    if (list.some((p) => p.id === first)) await toggle(first)
  })
  known.value = true
})
async function toggle(id: string) {
  if (chosen.value.includes(id)) {
    chosen.value = chosen.value.filter((c) => c !== id)
    return
  }
  if (!opened.value.some((o) => o.id === id)) {
    const one = await openPiece(id)
    opened.value = [...opened.value, one]
  }
  if (!chosen.value.includes(id)) chosen.value = [...chosen.value, id]
}
const currency = computed(() => account.account?.settings.currency ?? 'EUR')
const entries = computed(() => opened.value.filter((o) => chosen.value.includes(o.id)))
const list = computed(() =>
  shoppingList(entries.value, { box: box.box, offers: supplier.offers, currency: currency.value }),
)
const money = (minor: number) => showMoney(minor, list.value.currency)
const toBuy = computed(() => list.value.beads.filter((b) => b.buyGrams > 0 || b.shortGrams > 0))
const enough = computed(() => list.value.beads.filter((b) => b.buyGrams === 0 && b.shortGrams === 0))
const others = computed(() => list.value.others.filter((o) => o.buy > 0))
const contested = computed(() => contests(box.box).filter((c) => c.pieceIds.some((id) => chosen.value.includes(id))))
const nameOf = (id: string) => all.value.find((p) => p.id === id)?.name ?? 'a piece that was put away'
const ask = () => supplier.ask(list.value.beads.map((b) => b.bead))
const csvOut = () => saveFile('shopping.csv', shoppingCsv(list.value), 'text/csv')
const printIt = () => window.print()
</script>

<template>
  <div>
    <WorkshopHead title="Shopping"><NuxtLink to="/" class="button plain">Back</NuxtLink></WorkshopHead>
    <main class="page">
      <BoxNav />
      <p v-if="says" class="caution" role="alert">{{ says }}</p>
      <div class="columns">
        <section class="choose" aria-labelledby="for">
          <h2 id="for">For these pieces</h2>
          <p v-if="known && all.length === 0" class="soft">No pieces yet. Start one, and come back with it.</p>
          <label v-for="p in all" :key="p.id"
            ><input type="checkbox" :checked="chosen.includes(p.id)" @change="guarded(() => toggle(p.id))" /><span>{{
              p.name
            }}</span></label
          >
        </section>
        <section class="list" aria-labelledby="list">
          <div class="sum">
            <h2 id="list">To buy</h2>
            <p v-if="entries.length" class="total">
              <span class="figure"
                >{{
                  showNumber(
                    toBuy.reduce((s, b) => s + b.buyGrams, 0),
                    1,
                  )
                }}
                g</span
              ><span v-if="list.price > 0" class="figure">{{ money(list.price) }}</span
              ><span v-if="list.unknown" class="quiet">{{ list.unknown }} without a price</span>
            </p>
          </div>
          <div class="acts">
            <button type="button" class="button" :disabled="supplier.asking || list.beads.length === 0" @click="ask">
              {{ supplier.asking ? 'Asking…' : 'Ask the supplier' }}
            </button>
            <button type="button" class="button" :disabled="list.beads.length === 0" @click="csvOut">CSV</button>
            <button type="button" class="button" :disabled="list.beads.length === 0" @click="printIt">Print</button>
          </div>
          <p v-if="supplier.says" class="says" role="status">{{ supplier.says }}</p>
          <p v-for="c in contested" :key="c.item.id" class="caution">
            <b>{{ c.item.value.name }}</b> is set aside twice: {{ c.pieceIds.map(nameOf).join(' and ') }} want
            {{ showNumber(c.wanted, 1) }} g, {{ showNumber(c.there, 1) }} g are there.
          </p>
          <p v-if="entries.length === 0" class="soft">
            Choose the pieces that you shop for. The same bead in two of them becomes one line; what the box holds is
            taken off.
          </p>
          <ul>
            <li v-for="b in toBuy" :key="`${b.bead.spec} ${b.bead.colour} ${b.bead.finish}`" :data-bead="b.bead.name">
              <span class="tick" aria-hidden="true" /><span class="swatch tall" :style="{ '--bead': b.bead.colour }" />
              <span class="what"
                ><b>{{ b.bead.name }}</b
                ><span class="quiet"
                  >{{ requireSpec(b.bead.spec).name }}, {{ b.bead.finish }} · {{ showNumber(b.need) }} beads</span
                ><span class="quiet"
                  >for {{ b.wantedBy.map((w) => w.name).join(', ')
                  }}{{
                    b.fromBoxGrams + b.takenGrams > 0.005
                      ? `; ${showNumber(b.fromBoxGrams + b.takenGrams, 1)} g from the box`
                      : ''
                  }}</span
                ><span v-if="b.shortGrams > 0" class="warn"
                  >The supplier lacks {{ showNumber(b.shortGrams, 1) }} g.</span
                ></span
              >
              <span class="amount"
                ><span class="figure">{{ showNumber(b.buyGrams || b.shortGrams, 1) }} g</span
                ><span class="quiet"
                  >{{ packWords(b.packs) }}{{ b.price !== null && b.packs.length ? ` · ${money(b.price)}` : '' }}</span
                ></span
              >
            </li>
            <li v-for="o in others" :key="o.id" :data-other="o.name">
              <span class="tick" aria-hidden="true" /><span />
              <span class="what"
                ><b>{{ o.name }}</b
                ><span class="quiet"
                  >for {{ o.wantedBy.join(', ')
                  }}{{ o.fromBox > 0 ? `; ${o.unit === 'mm' ? long(o.fromBox) : o.fromBox} from the box` : '' }}</span
                ></span
              >
              <span class="amount"
                ><span class="figure">{{ o.unit === 'mm' ? long(o.buy) : o.buy }}</span></span
              >
            </li>
          </ul>
          <p v-if="enough.length" class="quiet">Enough in the box: {{ enough.map((b) => b.bead.name).join(', ') }}.</p>
        </section>
      </div>
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
.columns {
  display: grid;
  grid-template-columns: 260px 1fr;
  gap: 40px;
  align-items: start;
}
.choose {
  display: grid;
  gap: 2px;
}
.choose h2 {
  padding-bottom: 8px;
}
.choose label {
  display: flex;
  gap: 12px;
  align-items: center;
  min-height: 40px;
  cursor: pointer;
}
.choose input {
  width: 20px;
  height: 20px;
  accent-color: var(--madder);
  flex: none;
}
.list {
  display: grid;
  gap: 14px;
}
.sum {
  display: flex;
  align-items: baseline;
  gap: 20px;
  flex-wrap: wrap;
}
.total {
  display: flex;
  gap: 18px;
  align-items: baseline;
}
.total .figure {
  font-size: 30px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 18px 22px 1fr auto;
  gap: 12px;
  align-items: center;
  padding: 10px 0;
  border-top: 1px solid var(--line);
}
.tick {
  width: 16px;
  height: 16px;
  border: 1.5px solid var(--edge);
  border-radius: 4px;
}
.tall {
  width: 20px;
  height: 30px;
  border-radius: 6px;
}
.what {
  display: grid;
  gap: 1px;
}
.amount {
  display: grid;
  justify-items: end;
  gap: 3px;
  text-align: end;
}
.amount .figure {
  font-size: 24px;
  white-space: nowrap;
}
.says {
  background: var(--verdigris-wash);
  color: var(--verdigris);
  padding: 10px 14px;
  border-radius: 10px;
  font-size: 14.5px;
}
.caution {
  background: var(--marigold-wash);
  color: var(--marigold);
  padding: 10px 14px;
  border-radius: 10px;
  font-size: 14.5px;
}
.warn {
  color: var(--marigold);
  font-size: 14px;
}
@media (width <= 720px) {
  .page {
    padding: 0 14px 28px;
  }
  .columns {
    grid-template-columns: minmax(0, 1fr);
    gap: 20px;
  }
  .choose {
    max-height: 210px;
    overflow-y: auto;
  }
  .amount {
    max-width: 112px;
  }
}
@media print {
  .choose,
  .acts,
  .says {
    display: none;
  }
  .columns {
    grid-template-columns: 1fr;
  }
}
</style>
