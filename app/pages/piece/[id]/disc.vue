<script setup lang="ts">
import { discOf, isCounted } from '#core/piece/nature'
import { keyOf } from '#core/grid/key'
import { computed, ref, watch } from 'vue'
import { extentOf } from '#core/fit/extent'
import { strandsCsv } from '#core/format/strand-cards'
import { discMove, nextBeads } from '#core/making/disc'
import { layingSteps, setStep } from '#core/piece/edit'
import { columnsOf, rowsOf, SECTIONS, trayByNumber, type SectionName } from '#core/piece/piece'
import { readStrand, shapeNotes, strandLists, strandWords, unevenStrands } from '#core/tally/strand'
import { showNumber } from '#core/units/length'
import { useLengths } from '../../../composables/lengths'
import { saveFile, slug } from '../../../composables/save-file'
import { useAccount } from '../../../stores/account'
import { usePiece } from '../../../stores/piece'
import CordList from '../../../components/CordList.vue'
import RopeRules from '../../../components/RopeRules.vue'
import DiscView from '../../../components/DiscView.vue'

const store = usePiece()
const account = useAccount()
const { length } = useLengths()
const id = useRoute().params.id as string
const piece = computed(() => store.piece!)
const braids = computed(() => piece.value.parts.filter((p) => discOf(p)))
const chosen = ref('')
const part = computed(() => braids.value.find((p) => p.id === chosen.value) ?? braids.value[0])
const letters = computed(() => trayByNumber(piece.value.tray))
const says = ref('')
const braidedMm = computed(() => (part.value ? extentOf(piece.value, part.value).lengthMm.nominal : 0))

const shown = computed(() => (part.value ? discMove(part.value, 0) : null))
const beads = computed(() =>
  part.value ? nextBeads(part.value, 0).map((n) => letters.value.get(n)?.colour ?? '') : [],
)

// ---- strands: what to string, typed or painted
const sections = computed(() => SECTIONS.filter((s) => part.value && part.value[s].rows > 0))
const section = ref<SectionName>('repeat')
watch(
  sections,
  (now) => {
    if (!now.includes(section.value) && now[0]) section.value = now[0]
  },
  { immediate: true },
)
const SECTION_WORDS: Record<SectionName, string> = { start: 'beginning', repeat: 'repeat', end: 'ending' }
const reversed = ref(false)
const lists = computed(() => (part.value ? strandLists(part.value, section.value) : []))
const notes = computed(() => (part.value ? shapeNotes(piece.value, part.value) : []))
const uneven = computed(() => (part.value ? unevenStrands(strandLists(part.value)) : []))
function type(bobbin: number, text: string) {
  if (!part.value) return
  const read = readStrand(
    piece.value,
    part.value,
    section.value,
    bobbin,
    reversed.value
      ? text
          .trim()
          .split(/[\s,;]+/)
          .toReversed()
          .join(' ')
      : text,
  )
  if (!read.ok) {
    says.value = read.problems[0]!.says
    return
  }
  says.value = ''
  const steps = layingSteps(part.value, read.value)
  if (steps.length > 0) says.value = store.commit(`String strand ${bobbin}`, steps) ?? ''
}

// ---- plain cords: one to a slot, or two
function setCord(bobbin: number, number: number) {
  if (!part.value) return
  const columns = columnsOf(part.value)
  says.value =
    store.commit(
      `Cord of strand ${bobbin}`,
      layingSteps(
        part.value,
        new Map(Array.from({ length: rowsOf(part.value) }, (_, r) => [keyOf(columns, bobbin - 1, r), number])),
      ),
    ) ?? ''
}
function setDoubled(bobbin: number, doubled: boolean) {
  const can = part.value && discOf(part.value)?.doubled
  if (!part.value || !can) return
  const { id, settings } = part.value
  const now = new Set(can.of(settings))
  if (doubled) now.add(bobbin - 1)
  else now.delete(bobbin - 1)
  says.value =
    store.commit('Doubled strands', [setStep(piece.value, ['parts', id, 'settings'], can.with(settings, now))]) ?? ''
}

async function cards() {
  const { strandCardsPdf } = await import('#core/format/strand-cards')
  const made = await strandCardsPdf(piece.value, part.value!, { paper: account.account?.settings.paper ?? 'A4' })
  if (made.ok)
    saveFile(`${slug(piece.value.name)}-cards.pdf`, made.value as Uint8Array<ArrayBuffer>, 'application/pdf')
  else says.value = made.problems[0]!.says
}
const csvOut = () =>
  saveFile(`${slug(piece.value.name)}-strands.csv`, strandsCsv(piece.value, part.value!), 'text/csv')
</script>

<template>
  <main class="page">
    <p v-if="!part" class="soft">This piece has no braid. Choose a round braid as its stitch on the Fit page.</p>
    <template v-else>
      <section class="hands" aria-labelledby="disc">
        <h2 id="disc" class="hidden">The disc</h2>
        <DiscView
          v-if="shown"
          :disc="shown.disc"
          :from="null"
          :to="null"
          :active="null"
          :beads="beads"
          :turn="0"
          :moving="false"
          says="The disc as it is loaded: each strand in its slot, with its first bead."
          class="view"
        />
        <div class="next">
          <h3>Load each strand in its slot</h3>
          <p>The disc as it lies when the braid begins, with the first bead of each strand.</p>
          <div class="counts">
            <p>
              <span class="quiet">Strands</span
              ><span
                ><b class="figure">{{ columnsOf(part) }}</b></span
              >
            </p>
            <p>
              <span class="quiet">Rounds</span
              ><span
                ><b class="figure">{{ rowsOf(part) }}</b></span
              >
            </p>
            <p>
              <span class="quiet">Braided</span
              ><span
                ><b class="figure">{{ length(braidedMm) }}</b></span
              >
            </p>
          </div>
          <NuxtLink :to="`/piece/${id}/bench`" class="button main">Braid it at the bench</NuxtLink>
        </div>
      </section>

      <section class="strands" aria-labelledby="strands">
        <template v-if="!isCounted(part)">
          <h2 id="strands">A cord in each slot</h2>
          <CordList :piece="piece" :part="part" editable @cord="setCord" @doubled="setDoubled" />
          <p class="quiet">
            A cord keeps its colour from end to end. Two cords in one slot act as one fat cord; cords of other
            thickness are beads of the tray with their own size.
          </p>
        </template>
        <template v-else>
          <h2 id="strands">String on each strand, {{ reversed ? 'last used first' : 'first used first' }}</h2>
          <div class="which" role="group" aria-label="Section">
            <button
              v-for="s in sections"
              :key="s"
              type="button"
              class="button"
              :class="{ on: section === s }"
              :aria-pressed="section === s"
              @click="section = s"
            >
              {{ SECTION_WORDS[s] }}<template v-if="s === 'repeat'"> × {{ part.times }}</template></button
            ><label class="turn"><input v-model="reversed" type="checkbox" /> reversed</label>
          </div>
          <p v-if="uneven.length" class="warn">
            {{
              uneven
                .map((u) => `Strand ${u.bobbin} carries ${Math.abs(u.more)} ${u.more > 0 ? 'more' : 'fewer'}`)
                .join('; ')
            }}: the braid would stop early there.
          </p>
          <ul>
            <li v-for="l in lists" :key="l.bobbin">
              <span class="bobbin">{{ l.bobbin }}</span><span class="quiet slot"
                >slot {{ l.slot }}<br />{{ l.place }}</span
              ><input
                :value="strandWords(l, piece.tray, reversed)"
                :aria-label="`Strand ${l.bobbin}`"
                spellcheck="false"
                @change="(e) => type(l.bobbin, (e.target as HTMLInputElement).value)"
              />
            </li>
          </ul>
          <p class="quiet">
            {{ showNumber(part[section].rows) }} beads on each strand here; type a list like 3A 1B, or paint the
            surface on the mat.
          </p>
          <ul v-if="notes.length" class="notes">
            <li v-for="note in notes" :key="note">{{ note }}</li>
          </ul>
        </template>
        <p v-if="says" class="says" role="status">{{ says }}</p>
        <div class="acts">
          <button type="button" class="button" @click="cards">
            {{ !isCounted(part) ? 'The loaded disc as PDF' : 'Bobbin cards and disc as PDF' }}
          </button>
          <button type="button" class="button" @click="csvOut">Strands as CSV</button>
        </div>
        <details class="load">
          <summary>Patterns of the whole rope</summary>
          <RopeRules
            :piece="piece"
            :part="part"
            class="rule"
            @steps="
              (label, steps, text) => {
                says = store.commit(label, steps) ?? text
              }
            "
          />
        </details>
      </section>
    </template>
  </main>
</template>

<style scoped>
.page {
  padding: 12px 24px 32px;
  display: grid;
  grid-template-columns: minmax(0, 2fr) minmax(320px, 1fr);
  gap: 32px;
  align-items: start;
  max-width: 1480px;
  margin: 0 auto;
  width: 100%;
}
.hands {
  display: grid;
  grid-template-columns: minmax(0, 1.4fr) minmax(0, 1fr);
  gap: 24px;
  align-items: center;
  background: var(--mat);
  border-radius: var(--round);
  padding: 20px 24px;
}
.next {
  display: grid;
  gap: 14px;
}
.next h3 {
  font-size: 23px;
  line-height: 1.2;
}
.counts {
  display: flex;
  gap: 28px;
  flex-wrap: wrap;
}
.counts p {
  display: grid;
  gap: 2px;
}
.counts .figure {
  font-size: 38px;
}
.mat .quiet,
.hands .quiet {
  color: var(--ink);
}
.strands {
  display: grid;
  gap: 14px;
}
.which {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}
.which .on {
  background: var(--dark);
  color: var(--dark-ink);
  box-shadow: none;
}
.turn {
  margin-left: auto;
  font-size: 14.5px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 34px 62px 1fr;
  gap: 12px;
  align-items: center;
  padding: 5px 8px;
  border-top: 1px solid var(--line);
}
.bobbin {
  font: 700 24px/1 var(--title);
}
.slot {
  line-height: 1.25;
  font-size: 12.5px;
}
li input {
  font: 600 15.5px/1.3 var(--text);
  color: var(--ink);
  background: transparent;
  border: 0;
  border-bottom: 1.5px solid var(--edge);
  min-height: 40px;
  width: 100%;
}
.notes {
  display: grid;
  gap: 6px;
  font-size: 14.5px;
  color: var(--marigold);
}
.notes li {
  display: block;
  border: 0;
  padding: 0;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.says {
  background: var(--verdigris-wash);
  color: var(--verdigris);
  padding: 10px 14px;
  border-radius: 10px;
  font-size: 14.5px;
}
.warn {
  color: var(--marigold);
}
.load summary {
  cursor: pointer;
  color: var(--verdigris);
  min-height: 32px;
}
.rule {
  display: grid;
  gap: 14px;
  padding-top: 8px;
}
@media (width <= 1100px) {
  .page {
    grid-template-columns: minmax(0, 1fr);
  }
}
@media (width <= 720px) {
  .page {
    padding: 8px 14px 24px;
  }
  .hands {
    grid-template-columns: minmax(0, 1fr);
    padding: 12px;
    gap: 12px;
    justify-items: center;
  }
  .next h3 {
    font-size: 21px;
  }
  .next {
    width: 100%;
  }
}
</style>
