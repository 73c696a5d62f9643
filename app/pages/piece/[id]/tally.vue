<script setup lang="ts">
import { isCounted, linesWord, madeParts } from '#core/piece/nature'
import { computed, ref } from 'vue'
import { requireSpec } from '#core/bead/spec'
import { laidCounted } from '#core/piece/laid'
import { partFindings } from '#core/proof/finding'
import { markedRows } from '#core/proof/marks'
import { wanting } from '#core/proof/proof'
import { columnsOf, fittedPart, techniqueOf, type Part, workOf, rowsOf } from '#core/piece/piece'

import { beadCounts, sizeCounts, tallyJoin, tallyPart, tallyPiece, tallySection, totalOf } from '#core/tally/tally'
import { placesOf, titled } from '#core/technique/technique'
import { joinSays, joinWords, rowTitle, rowWords, wordedRows, workingRowCount } from '#core/tally/words'
import { shownRows } from '#core/tally/strips'
import { rowsCsv, tallyCsv } from '#core/format/tally-csv'
import { showNumber } from '#core/units/length'
import { saveFile, slug } from '../../../composables/save-file'
import { usePiece } from '../../../stores/piece'
import { useProof } from '../../../stores/proof'
import CordList from '../../../components/CordList.vue'
import RowWords from '../../../components/RowWords.vue'
import StepStrip from '../../../components/StepStrip.vue'

const store = usePiece()
const piece = computed(() => store.piece!)
const chosen = ref('')
const made = computed(() => madeParts(piece.value.parts))
const part = computed<Part>(() => made.value.find((p) => p.id === chosen.value) ?? fittedPart(piece.value))
const sections = computed(() => ({
  start: tallySection(part.value, 'start'),
  repeat: tallySection(part.value, 'repeat'),
  end: tallySection(part.value, 'end'),
}))
const inPart = computed(() => tallyPart(part.value))
const all = computed(() => tallyPiece(piece.value))
const rows = computed(() => beadCounts(piece.value.tray, inPart.value).filter((b) => b.count > 0))
const sizes = computed(() => sizeCounts(piece.value.tray, all.value))

const PAGE = 40
const page = ref(0)
/** Rows that hold a bead; where all do, none needs to be named. */
const worded = computed(() => wordedRows(part.value))
const count = computed(() => worded.value?.length ?? workingRowCount(part.value))
const join = computed(() => ({
  says: joinSays(piece.value, part.value),
  words: joinWords(piece.value, part.value),
  counts: tallyJoin(piece.value),
}))
/** Work that is told step by step, as it looks. */
const pictured = computed(() => shownRows(part.value))
const findings = computed(() => partFindings(part.value, piece.value))
/** Rows that want a look. */
const proof = useProof()
const marks = computed(() => markedRows(part.value, wanting({ open: proof.open })))
const pages = computed(() => Math.max(1, Math.ceil(count.value / PAGE)))
const shown = computed(() => {
  const from = Math.min(page.value, pages.value - 1) * PAGE
  return Array.from({ length: Math.min(PAGE, count.value - from) }, (_, k) =>
    rowWords(part.value, worded.value?.[from + k] ?? from + k),
  )
})
/** Bobbin numbers in the order in which a round moves them. */
const moveOrder = computed(() =>
  placesOf(
    techniqueOf(part.value).order.row(0, workOf(part.value, Math.min(1, rowsOf(part.value)))),
    columnsOf(part.value),
  ).map((p) => p.c + 1),
)
const csvCounts = () => saveFile(`${slug(piece.value.name)}-counts.csv`, tallyCsv(piece.value), 'text/csv')
const csvRows = () => saveFile(`${slug(piece.value.name)}-rows.csv`, rowsCsv(piece.value), 'text/csv')
function choose(part: string) {
  chosen.value = part
  page.value = 0
}
</script>

<template>
  <main class="page">
    <h2 class="hidden">Tally</h2>
    <p v-if="made.length > 1" class="parts">
      <button
        v-for="p in made"
        :key="p.id"
        type="button"
        class="button"
        :class="{ main: p.id === part.id }"
        :aria-pressed="p.id === part.id"
        @click="choose(p.id)"
      >
        {{ p.name }}
      </button>
    </p>
    <section class="counts" aria-labelledby="of-what">
      <div class="figures">
        <div v-if="totalOf(all) > 0">
          <span class="quiet">Beads in all</span><span class="figure big">{{ showNumber(totalOf(all)) }}</span>
        </div>
        <div v-if="isCounted(part)">
          <span class="quiet">In one repeat</span
          ><span class="figure big">{{ showNumber(totalOf(sections.repeat)) }}</span>
        </div>
        <div>
          <span class="quiet">{{ titled(linesWord(part)) }}</span><span class="figure big">{{
            showNumber(laidCounted(part))
          }}</span>
        </div>
        <div>
          <span class="quiet">{{ techniqueOf(part).words.acrossTitle }}</span><span class="figure big">{{
            columnsOf(part)
          }}</span>
        </div>
      </div>
      <div v-if="!isCounted(part)" class="sheet">
        <h3 id="of-what" class="over-list">Strand by strand</h3>
        <CordList :piece="piece" :part="part" />
      </div>
      <div v-else class="sheet">
        <h3 id="of-what">By bead</h3>
        <div class="scroll" tabindex="0" role="group" aria-label="Table of counts">
          <table>
            <thead>
              <tr>
                <th class="who" scope="col">Bead</th>
                <th class="number all" scope="col">In all</th>
                <th class="number" scope="col">Start</th>
                <th class="number" scope="col">
                  One repeat<span class="slim"> × {{ part.times }}</span>
                </th>
                <th class="number roomy" scope="col">× {{ part.times }}</th>
                <th class="number" scope="col">End</th>
                <th class="number roomy" scope="col">Grams</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="b in rows" :key="b.bead.number">
                <th scope="row" class="who">
                  <span class="swatch" :style="{ '--bead': b.bead.colour }" /> <b>{{ b.bead.letter }}</b>
                  {{ b.bead.name }}
                </th>
                <td class="number all total">{{ showNumber(b.count) }}</td>
                <td class="number">{{ sections.start.get(b.bead.number) ?? 0 }}</td>
                <td class="number">{{ sections.repeat.get(b.bead.number) ?? 0 }}</td>
                <td class="number roomy">{{ showNumber((sections.repeat.get(b.bead.number) ?? 0) * part.times) }}</td>
                <td class="number">{{ sections.end.get(b.bead.number) ?? 0 }}</td>
                <td class="number roomy">{{ showNumber(b.grams, 2) }}</td>
              </tr>
            </tbody>
          </table>
        </div>
        <p v-if="join.words" class="quiet">
          And {{ totalOf(join.counts) }} more that join the ends; they are in the beads in all.
        </p>
        <h3 class="by-size">By size</h3>
        <p v-for="s in sizes" :key="s.spec">
          {{ requireSpec(s.spec).name }}: <b>{{ showNumber(s.count) }}</b> {{ s.count === 1 ? 'bead' : 'beads' }},
          {{ showNumber(s.grams, 1) }} g
        </p>
      </div>
      <p class="out">
        <button type="button" class="button" @click="csvCounts">Counts as CSV</button
        ><button type="button" class="button" @click="csvRows">Rows as CSV</button>
      </p>
    </section>
    <section class="rows" aria-labelledby="row-by-row">
      <template v-if="!isCounted(part)">
        <h3 id="row-by-row">Every round alike</h3>
        <p class="order">
          Strands are moved in this order: <b>{{ moveOrder.join(' · ') }}</b>
        </p>
        <p class="quiet">The Disc page leads through the moves and keeps your place.</p>
      </template>
      <template v-if="pictured.length">
        <h3>Step by step, in pictures</h3>
        <section v-for="row in pictured" :key="row.words.index" class="pictured">
          <h4>
            {{ rowTitle(row.words) }}<span v-if="row.others" class="quiet"> and those worked alike</span>
            <span class="quiet"> · {{ row.words.beads }} {{ row.words.beads === 1 ? 'bead' : 'beads' }}</span>
          </h4>
          <StepStrip :piece="piece" :part="part" :steps="row.steps" />
        </section>
      </template>
      <div v-if="isCounted(part)" class="over">
        <h3 id="row-by-row">
          {{ titled(techniqueOf(part).words.line) }} by {{ techniqueOf(part).words.line }}, as worked
        </h3>
        <nav v-if="pages > 1" class="pager" aria-label="Pages of rows">
          <button type="button" class="button" :disabled="page === 0" @click="page--">Earlier</button
          ><span class="quiet">{{ page + 1 }} of {{ pages }}</span
          ><button type="button" class="button" :disabled="page >= pages - 1" @click="page++">Later</button>
        </nav>
      </div>
      <p v-for="f in findings" :key="f.says" :class="{ finding: f.weight === 'stops' }" class="found">{{ f.says }}</p>
      <ol v-if="isCounted(part)" class="list">
        <li v-for="w in shown" :key="w.index">
          <RowWords :words="w" :piece="piece" :mark="marks.get(w.index)?.says" />
        </li>
      </ol>
      <template v-if="join.says && page >= pages - 1">
        <p class="found">{{ join.says }}</p>
        <RowWords v-if="join.words" :words="join.words" :piece="piece" />
      </template>
    </section>
  </main>
</template>

<style scoped>
.page {
  padding: 8px 20px 32px;
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 24px 28px;
  align-items: start;
  max-width: 1480px;
  width: 100%;
  margin: 0 auto;
}
.parts {
  grid-column: 1 / -1;
  display: flex;
  gap: 8px;
}
.counts {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 18px;
  position: sticky;
  top: 12px;
}
.figures {
  display: flex;
  gap: 16px 34px;
  flex-wrap: wrap;
}
.figures > div {
  display: grid;
  gap: 5px;
}
.big {
  font-size: 40px;
}
.scroll {
  overflow-x: auto;
  margin-top: 8px;
}
.sheet table {
  width: 100%;
  font-size: 15px;
}
.sheet th,
.sheet td {
  padding: 8px 0 8px 10px;
  border-bottom: 1px solid var(--line);
  white-space: nowrap;
}
.sheet tr > :first-child {
  padding-left: 0;
}
tbody th {
  color: var(--ink);
}
.total {
  font-weight: 700;
  font-size: 17px;
}
.over-list {
  margin-bottom: 12px;
}
.order {
  font-size: 17px;
  margin: 8px 0;
}
.by-size {
  margin: 18px 0 6px;
}
.out {
  display: flex;
  gap: 10px;
  flex-wrap: wrap;
}
.over {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 12px;
  min-height: 46px;
  flex-wrap: wrap;
}
.pager {
  display: flex;
  align-items: center;
  gap: 10px;
}
.found {
  margin: 6px 0;
  padding: 10px 14px;
  border-radius: 10px;
  background: var(--paper);
}
.finding {
  background: var(--marigold-wash);
  color: var(--marigold);
}
.pictured {
  margin: 10px 0 20px;
}
h4 {
  margin: 0 0 8px;
  font: 650 16px/1.3 var(--text);
}
.list {
  list-style: none;
  margin: 8px 0 0;
  padding: 0;
}
.list li {
  padding: 8px 12px;
  border-radius: 10px;
}
.list li:nth-child(odd) {
  background: var(--paper);
}
@media (width > 600px) {
  .slim {
    display: none;
  }
}
@media (width <= 980px) {
  .page {
    grid-template-columns: minmax(0, 1fr);
    padding: 8px 12px 24px;
  }
  .counts {
    position: static;
  }
  .big {
    font-size: 34px;
  }
}
@media (width <= 600px) {
  /* A phone has room for what is counted on the needle; grams stand under “by size”. */
  .roomy {
    display: none;
  }
  .sheet thead th {
    white-space: normal;
    vertical-align: bottom;
  }
  .sheet .who {
    width: 120px;
    white-space: normal;
  }
}
</style>
