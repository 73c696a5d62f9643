<script setup lang="ts">
import { markedRows } from '#core/proof/marks'
import { wanting } from '#core/proof/proof'
import { linesWord, madeParts } from '#core/piece/nature'
import { slotCount } from '#core/grid/lines'
import { acrossWords, titled } from '#core/technique/technique'
import { computed, ref, watchEffect } from 'vue'
import { feelShort } from '#core/fit/feel'
import { fitKindOf } from '#core/wear/kind'
import { fitOf } from '#core/fit/reckon'
import { closureName, closureOf } from '#core/wear/closure'
import { packWords } from '#core/format/shopping-csv'
import { chartStrips, chartSvg, hangingScale, paperScale, wholeSvg } from '#core/format/chart-svg'
import { jointWords, partsWith } from '#core/piece/joint'
import { linksNeeded } from '#core/supply/links'
import { needsFor, toolsFor } from '#core/supply/tools'
import { wholeOf } from '#core/picture/whole'
import { arrowNote, usualLying } from '#core/picture/view'
import { requireSpec } from '#core/bead/spec'
import { laidCounted } from '#core/piece/laid'
import {
  beadOf,
  columnsOf,
  countedRows,
  findPart,
  fittedPart,
  sectionStart,
  SECTIONS,
  techniqueOf,
  trayByNumber,
} from '#core/piece/piece'
import { beadsToBuy, timesMade } from '#core/supply/beads'
import { requireNeedle, requireThread } from '#core/thread/catalogue'
import { guidesOf } from '#core/piece/wire'
import { cutList } from '#core/supply/thread'
import { boundEnd } from '#core/tally/cords'
import { asides, asWords, joinSays, rowNumbered, rowTitle, runText, sheetLines } from '#core/tally/words'
import { runPairs } from '#core/grid/runs'
import { pairWords, secondDiffers } from '#core/piece/pair'
import { strandCards } from '#core/piece/strands'
import { shownRows } from '#core/tally/strips'
import { tallyPiece, totalOf } from '#core/tally/tally'
import { showNumber } from '#core/units/length'
import BendingGuide from '../../../components/BendingGuide.vue'
import StepStrip from '../../../components/StepStrip.vue'
import TakeAlong from '../../../components/TakeAlong.vue'
import GlyphMark from '../../../components/GlyphMark.vue'
import { useLengths } from '../../../composables/lengths'
import { useAccount } from '../../../stores/account'
import { usePiece } from '../../../stores/piece'
import { useProof } from '../../../stores/proof'
import { ownStyle } from '../../../theme/own-style'

const store = usePiece()
const account = useAccount()
const { length, long } = useLengths()
const dataOf = (svg: string) => `data:image/svg+xml,${encodeURIComponent(svg)}`
const piece = computed(() => store.piece!)
/** The part that the head speaks of: the one that is fitted. */
const fitted = computed(() => fittedPart(piece.value))
const chosen = ref('')
const made = computed(() => madeParts(piece.value.parts))
const part = computed(() => made.value.find((p) => p.id === chosen.value) ?? fitted.value)
/** Whether it is drawn as it hangs. */
const hangs = computed(() => usualLying(piece.value.parts).flip !== undefined)
const paper = computed(() => account.account?.settings.paper ?? 'A4')
const ink = ref<'both' | 'colour' | 'glyphs'>('both')
const inks = [
  { value: 'both', title: 'Colour and glyphs' },
  { value: 'colour', title: 'Colour' },
  { value: 'glyphs', title: 'Glyphs, black and white' },
]

const SHEET = { A4: { width: 210, height: 297 }, Letter: { width: 215.9, height: 279.4 } }
const MARGIN = 12
const room = computed(() => ({
  width: SHEET[paper.value].width - 2 * MARGIN,
  height: SHEET[paper.value].height - 2 * MARGIN,
}))

/** The page size of the printer follows the choice. */
watchEffect((onCleanup) => {
  const sheet = paper.value === 'A4' ? 'A4' : 'letter'
  const style = ownStyle(`@page { size: ${sheet} portrait; margin: ${MARGIN}mm; }`)
  onCleanup(() => style.remove())
})

const fit = computed(() => fitOf(piece.value))
const kind = computed(() => fitKindOf(piece.value.fit.kind))
const buy = computed(() => beadsToBuy(piece.value))
const times = computed(() => timesMade(piece.value))
const cuts = computed(() => cutList(piece.value))
/** Whether there is wire to bend: its guide brings a bar of 50 mm of its own. */
const bends = computed(() => guidesOf(piece.value).length > 0)
/** What carries the beads, in a word. */
const carried = computed(
  () => ['thread', 'wire', 'cord'].find((m) => cuts.value.some((c) => c.material === m)) ?? 'what holds them',
)
const hanging = computed(() => piece.value.parts.filter((p) => p.on))
/** All of what hangs together, as large as the sheet is wide at most. */
const wholePicture = computed(() => {
  const whole = wholeOf(partsWith(piece.value.parts, fitted.value))
  // What hangs is shown at true size, both of a pair side by side.
  const many = kind.value.pieces
  const scale = hangs.value
    ? Math.min(1, (room.value.width / many - 8) / whole.width, (room.value.height - 30) / whole.length)
    : Math.min(2, (room.value.width - 2) / whole.length, 90 / whole.width)
  const svg = wholeSvg(piece.value.parts, fitted.value, piece.value.tray, {
    ...{ scale, ink: 'colour', title: piece.value.name, hanging: hangs.value },
  })
  return { src: dataOf(svg), scale }
})
const proof = useProof()
/** Whether it is kept from the printer: by the settings, and by what is found or not read yet. */
const unproved = computed(
  () => account.account?.settings.proved === 'on' && (!proof.proof || !proof.current || proof.wants > 0),
)
/** Rows that want a look, by part. */
const marks = computed(
  () => new Map(piece.value.parts.map((p) => [p.id, markedRows(p, wanting({ open: proof.open }))] as const)),
)
/** What stands on the sheet of the proof; cautions stand where they apply. */
const proved = computed(() => proof.proof && proof.proof.open.filter((f) => f.group !== 'safety'))
const today = new Date().toISOString().slice(0, 10)
const needs = computed(() => needsFor(piece.value))
const tools = computed(() => toolsFor(piece.value))
const rings = computed(() => linksNeeded(piece.value).filter((l) => l.kind === 'ring'))
const ends = computed(() => piece.value.parts.flatMap((part) => boundEnd(part, piece.value.tray) ?? []))
const letters = computed(() => trayByNumber(piece.value.tray))
const MOST_WORDS = 600
/** A section of more beads than this is not drawn on the sheet: it would fill a book. */
const MOST_CHARTED = 24_000

const charts = computed(() =>
  made.value.map((part) => {
    const hanging = hangs.value
    const scale = hanging
      ? hangingScale(part, { ...room.value, height: room.value.height * 0.8 })
      : paperScale(part, room.value.height / 3)
    const sections = SECTIONS.flatMap((section) => {
      const from = sectionStart(part, section)
      const rows = part[section].rows
      if (rows === 0 || (section === 'repeat' && part.times === 0)) return []
      const drawn = slotCount(part[section]) <= MOST_CHARTED
      const title =
        section === 'repeat'
          ? `Repeat, worked ${part.times} ${part.times === 1 ? 'time' : 'times'}`
          : section === 'start'
            ? 'Start'
            : 'End'
      return [
        {
          section,
          title: `${title} · ${linesWord(part)} ` + `${countedRows(part, from) + 1}–${countedRows(part, from + rows)}`,
          drawn,
          strips: (!drawn
            ? []
            : hanging
              ? [[from, from + rows] as const]
              : chartStrips(part, from, from + rows, scale, room.value.width)
          ).map(([a, b]) => ({
            src: dataOf(
              chartSvg(part, piece.value.tray, {
                lie: hanging ? 'upright' : 'level',
                hanging,
                from: a,
                to: b,
                scale,
                ink: ink.value,
                title: `${part.name}: ${section}`,
              }),
            ),
            alt:
              `Chart of ${part.name}, ${linesWord(part)} ${countedRows(part, a) + 1} to ` +
              `${countedRows(part, b)}; the same in words below`,
          })),
        },
      ]
    })
    return {
      part,
      sections,
      cards: strandCards(piece.value, part),
      pictured: shownRows(part),
      words: sheetLines(piece.value, part).slice(0, MOST_WORDS),
      join: joinSays(piece.value, part),
    }
  }),
)

const print = () => window.print()
</script>

<template>
  <main class="page">
    <h2 class="hidden">Print and export</h2>
    <aside class="choices" aria-label="Print and export">
      <button type="button" class="button main" :disabled="unproved" @click="print">Print this sheet</button>
      <p v-if="unproved" class="says" role="status">
        Only what is proved is printed, as your settings say.
        <NuxtLink :to="`/piece/${store.id}/proof`">{{
          proof.proof
            ? `${proof.wants} ${proof.wants === 1 ? 'thing wants' : 'things want'} a look`
            : 'It is being read'
        }}</NuxtLink>
      </p>
      <VSelect
        :model-value="paper"
        :items="['A4', 'Letter']"
        label="Paper"
        @update:model-value="(v: 'A4' | 'Letter') => account.change({ paper: v })"
      />
      <VSelect v-model="ink" :items="inks" label="Chart" />
      <TakeAlong
        :part="part"
        :made="made"
        :hangs="hangs"
        :ink="ink"
        :paper="paper"
        :unproved="unproved"
        @chosen="(id) => (chosen = id)"
      />
    </aside>

    <article class="paper" :style="{ '--page': `${SHEET[paper].width}mm` }">
      <header>
        <h1>{{ piece.name }}</h1>
        <p>
          <template v-if="piece.parts.length > 1">{{ fitted.name }}: </template>{{ techniqueOf(fitted).name }} ·
          {{ beadOf(fitted).name }} · {{ acrossWords(techniqueOf(fitted), columnsOf(fitted)) }},
          {{ laidCounted(fitted) }} {{ linesWord(fitted)
          }}<template v-if="piece.fit.wearer"> · for {{ piece.fit.wearer }}</template>
        </p>
      </header>
      <section class="facts">
        <div>
          <span>{{ kind.measureName }}</span><b>{{ length(piece.fit.bodyMm) }}</b>
        </div>
        <div>
          <span>Beadwork</span><b>{{ length(fit.beadworkMm.nominal) }}</b>
        </div>
        <div>
          <span>{{ closureName(piece.fit.closure) }}</span><b>{{ length(piece.fit.closure.lengthMm) }}</b>
        </div>
        <div>
          <span>{{ kind.bend === 'round' ? 'Closes at' : 'Comes to' }}</span><b
            >{{ length(fit.atMm, fit.wantedMm < 100 ? 1 : 0) }} ±
            {{ length((fit.finishedMm.most - fit.finishedMm.least) / 2, fit.wantedMm < 100 ? 1 : 0) }}</b
          >
        </div>
        <div>
          <span>Stands on</span
          ><b>{{
            fit.basis.kind === 'gauge'
              ? `gauge, ± ${showNumber(fit.basis.spread * 100, 1)} %`
              : `nominal beads, ± ${showNumber(fit.basis.spread * 100)} %`
          }}</b>
        </div>
        <div>
          <span>Fit</span><b>{{ feelShort(fit.feel, piece.fit.kind) }}</b>
        </div>
        <div v-if="totalOf(tallyPiece(piece)) > 0">
          <span>Beads</span><b>{{ showNumber(totalOf(tallyPiece(piece))) }}</b>
        </div>
      </section>
      <p v-if="closureOf(piece.fit.closure.kind).caution" class="caution">
        {{ closureOf(piece.fit.closure.kind).caution }}
      </p>

      <p v-if="piece.notes" class="notes">{{ piece.notes }}</p>

      <section>
        <h2>Beads and {{ carried }}</h2>
        <table v-if="buy.length">
          <thead>
            <tr>
              <td />
              <th scope="col">Bead</th>
              <th scope="col">Size</th>
              <th class="number" scope="col">In the piece</th>
              <th class="number" scope="col">With spare</th>
              <th class="number" scope="col">Grams</th>
              <th scope="col">Packs</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="b in buy" :key="b.bead.number">
              <td>
                <svg viewBox="0 0 1 1" class="mark" aria-hidden="true">
                  <GlyphMark :glyph="b.bead.glyph" ink="#111" /></svg
                ><span class="swatch" :style="{ '--bead': b.bead.colour }" />
              </td>
              <th scope="row">
                <b>{{ b.bead.letter }}</b> {{ b.bead.name }}, {{ b.bead.finish }}
              </th>
              <td>{{ requireSpec(b.bead.spec).name }}</td>
              <td class="number">{{ showNumber(b.count) }}</td>
              <td class="number">{{ showNumber(b.need) }}</td>
              <td class="number">{{ showNumber(b.grams, 1) }}</td>
              <td>{{ packWords(b.packs) }}</td>
            </tr>
          </tbody>
        </table>
        <p>
          <template v-for="cut in cuts" :key="`${cut.part} ${cut.id}`"
            >{{ cut.name }}<template v-if="piece.parts.length > 1 && cut.part"> ({{ cut.part }})</template>:
            <b>{{ long(cut.totalMm * times) }}</b><template v-if="cut.pieces > 1 && cut.joins === 0">
              ({{ cut.pieces * times }} of {{ length(cut.cutMm) }})</template
            ><template v-else-if="cut.joins"> in {{ cut.pieces * times }} lengths</template>.
          </template>
          <template v-if="cuts.some((c) => c.material === 'thread')"
            >Of {{ requireThread(piece.supply.thread).name }}, with needle
            {{ requireNeedle(piece.supply.needle).name }}. </template
          ><template v-for="ring in rings" :key="ring.name">{{ ring.name }}: {{ ring.count * times }}. </template
          ><template v-for="need in needs" :key="need.name">{{ need.name }}: {{ need.count * times }}. </template
          ><template v-for="end in ends" :key="end.capMm">Two end caps, {{ end.capMm }} mm inside. </template
          ><template v-if="times > 1">
            For {{ times }} {{ kind.pieces === 2 ? `${kind.noun}s` : 'pieces' }}. {{ pairWords(piece) }}</template
          >
        </p>
        <p>Tools: {{ tools.join(', ').toLowerCase() }}.</p>
      </section>

      <section v-if="proved" class="proved" data-test="proved">
        <h2>Proof</h2>
        <p v-if="proved.length === 0">Checked on {{ today }}: nothing found.</p>
        <template v-else>
          <p>Checked on {{ today }}:</p>
          <ul>
            <li v-for="f in proved" :key="`${f.part} ${f.says}`">
              <template v-if="piece.parts.length > 1 && f.part"
                ><b>{{ findPart(piece, f.part)?.name }}:</b>{{ ' ' }}</template
              >{{ f.says }}
            </li>
          </ul>
        </template>
      </section>
      <section v-if="hanging.length" class="joined">
        <h2>How the parts join</h2>
        <div class="both">
          <img :src="wholePicture.src" :alt="`All parts of ${piece.name} as they hang`" />
          <img
            v-if="hangs && kind.pieces === 2"
            :src="wholePicture.src"
            alt="The second of the pair"
            :class="{ mirrored: piece.fit.pair === 'mirror' }"
          />
        </div>
        <p v-if="hangs" class="arrows">
          {{ wholePicture.scale === 1 ? 'At true size' : `At ${showNumber(wholePicture.scale * 100)} % of true size`
          }}{{ kind.pieces === 2 ? ': both of the pair' : '' }}.
        </p>
        <ul>
          <li v-for="p in hanging" :key="p.id">
            <b>{{ p.name }}.</b> {{ jointWords(piece.parts, p, (mm) => length(mm)) }}.
          </li>
        </ul>
      </section>

      <section v-if="!bends" class="scale">
        <svg width="52mm" height="9mm" viewBox="0 0 52 9" role="img" aria-label="Scale bar of 50 mm">
          <path d="M1 1v4M51 1v4M1 3h50M11 2v2M21 2v2M31 2v2M41 2v2" stroke="#111" stroke-width="0.35" fill="none" />
          <text x="26" y="8.4" font-size="3" text-anchor="middle" fill="#111">50 mm</text>
        </svg>
        <p>Lay a rule on this bar: if it is not 50 mm long, print again at 100 %.</p>
      </section>

      <BendingGuide class="guide" :piece="piece" paper />

      <section v-for="chart in charts" :key="chart.part.id" class="chart">
        <template v-for="s in chart.sections" :key="s.section">
          <p v-if="!s.drawn">
            {{ chart.part.name }}: {{ s.title }}. Too many beads for a chart on paper; save it as SVG instead.
          </p>
          <div v-for="(strip, k) in s.strips" :key="k" class="stretch">
            <h3>{{ k === 0 ? `${chart.part.name}: ${s.title}` : 'continued' }}</h3>
            <img :src="strip.src" :alt="strip.alt" />
          </div>
        </template>
      </section>

      <section v-for="chart in charts.filter((c) => c.pictured.length)" :key="`p-${chart.part.id}`">
        <h2>{{ chart.part.name }}, step by step</h2>
        <div v-for="row in chart.pictured" :key="row.words.index" class="pictured">
          <h3>
            {{ rowTitle(row.words) }}{{ row.others ? ' and those worked alike' : '' }} · {{ row.words.beads }}
            {{ row.words.beads === 1 ? 'bead' : 'beads' }}
          </h3>
          <StepStrip :piece="piece" :part="chart.part" :steps="row.steps" />
        </div>
      </section>

      <section v-for="chart in charts.filter((c) => c.cards.length)" :key="`c-${chart.part.id}`">
        <h2>{{ titled(linesWord(chart.part)) }} of {{ chart.part.name }}: a card for each list</h2>
        <ol class="cards">
          <li v-for="card in chart.cards" :key="card.strands[0]">
            <b>{{ card.strands.join(' · ') }}</b>
            <span v-for="(run, k) in runPairs(card.numbers)" :key="k" class="run"
              ><svg viewBox="0 0 1 1" class="mark" aria-hidden="true">
                <GlyphMark v-if="letters.get(run.number)" :glyph="letters.get(run.number)!.glyph" ink="#111" /></svg
              ><span class="swatch" :style="{ '--bead': letters.get(run.number)?.colour }" />{{
                runText(run, letters)
              }}</span
            >
            <span class="sum">{{ card.numbers.length }} beads, {{ length(card.longMm, 1) }}</span>
          </li>
        </ol>
        <p v-if="secondDiffers(piece)" class="arrows">
          The second of the pair is its mirror: make it from the last
          {{ techniqueOf(chart.part).words.line }} to the first.
        </p>
      </section>

      <section v-for="chart in charts" :key="`w-${chart.part.id}`">
        <h2>{{ titled(linesWord(chart.part)) }} of {{ chart.part.name }}, as worked</h2>
        <p v-if="arrowNote(chart.part, { lie: 'level' })" class="arrows">
          On the charts, which lie level, {{ arrowNote(chart.part, { lie: 'level' }) }}.
        </p>
        <p v-if="marks.get(chart.part.id)?.size" class="arrows">◆ wants a look: what, stands under Proof.</p>
        <ol class="words">
          <li v-for="(line, k) in chart.words" :key="k">
            <template v-if="line.kind === 'row'"
              ><i v-if="marks.get(chart.part.id)?.has(line.words.index)" class="look"
                >◆<b class="hidden"> Wants a look: </b></i
              ><b>{{ line.words.title ?? rowNumbered(line.words).replace(/^\D+/, '') }} {{ line.words.direction }}</b
              >{{ ' '
              }}<template v-if="line.words.as"
                >{{ asWords(line.words) }} <span>({{ line.words.beads }})</span></template
              ><template v-else-if="line.words.told"
                ><template v-for="(step, n) in line.words.told" :key="n"
                  >{{ n > 0 ? ' · ' : '' }}<i v-if="step.who">{{ step.who }}</i
                  >{{ step.who ? ' ' : ''
                  }}{{ step.runs.length ? step.runs.map((r) => runText(r, letters)).join(' ') : step.says
                  }}<i v-if="step.note">, {{ step.note }}</i></template
                >{{ ' ' }}<span>({{ line.words.beads }})</span></template
              ><template v-else
                >{{ line.words.runs.map((r) => runText(r, letters)).join(' ') }} <span>({{ line.words.beads }})</span
                ><i v-for="text in asides(line.words)" :key="text"> · {{ text }}</i></template
              ></template
            >
            <template v-else
              ><b>{{ line.from }}–{{ line.to }}</b> as {{ linesWord(chart.part) }} {{ line.asFrom }}–{{ line.asTo }},
              {{ line.times }} {{ line.times === 1 ? 'time' : 'times' }} more</template
            >
          </li>
        </ol>
        <p v-if="chart.join" class="arrows">{{ chart.join }}</p>
        <p v-if="chart.words.length === MOST_WORDS">
          The first {{ MOST_WORDS }} lines; all of them are in the CSV on the Tally page.
        </p>
      </section>
      <p class="caution">
        Small beads and cords are dangerous to small children. What is sold must follow the law of the place where it
        is sold.
      </p>
    </article>
  </main>
</template>

<style scoped>
.page {
  display: grid;
  grid-template-columns: 250px minmax(0, 1fr);
  gap: 24px;
  padding: 12px 24px 32px;
  align-items: start;
}
.choices {
  display: grid;
  gap: 12px;
  position: sticky;
  top: 12px;
}
.says {
  background: var(--verdigris-wash);
  color: var(--verdigris);
  padding: 10px 12px;
  border-radius: 10px;
  font-size: 14.5px;
}
.paper {
  background: #fff;
  color: #1a1613;
  width: min(100%, var(--page));
  padding: 12mm;
  margin: 0 auto;
  box-shadow: var(--shadow);
  border-radius: 4px;
  font-size: 11pt;
  overflow: hidden;
  color-scheme: light;
}
.paper h1 {
  font-size: 24pt;
}
.paper h2 {
  font-size: 14pt;
  margin: 6mm 0 2mm;
}
.paper h3 {
  font-size: 11pt;
  margin: 5mm 0 1.5mm;
}
.facts {
  display: flex;
  flex-wrap: wrap;
  gap: 3mm 8mm;
  margin-top: 5mm;
  padding: 3mm 0;
  border-block: 0.4mm solid #1a1613;
}
.facts div {
  display: grid;
}
.facts span {
  color: #564c44;
  font-size: 9pt;
}
.facts b {
  font: 650 13pt/1.2 var(--title);
}
.caution {
  margin-top: 3mm;
  font-size: 10pt;
}
.notes {
  margin-top: 3mm;
  white-space: pre-line;
}
table {
  width: 100%;
  font-size: 10pt;
}
td,
th {
  padding: 1.2mm 2mm 1.2mm 0;
  border-bottom: 0.2mm solid #cfc6b8;
  color: #1a1613;
}
thead th {
  color: #564c44;
  font-size: 9pt;
}
.mark {
  width: 5mm;
  height: 5mm;
  vertical-align: -1.2mm;
  margin-right: 1.5mm;
}
.stretch {
  break-inside: avoid;
  display: inline-block;
  vertical-align: top;
  margin-right: 8mm;
  max-width: 100%;
}
.joined img,
.stretch img {
  max-width: 100%;
  height: auto;
  display: block;
}
.scale {
  display: flex;
  align-items: center;
  gap: 4mm;
  margin-top: 5mm;
  font-size: 9pt;
  break-inside: avoid;
}
.scale svg {
  flex: none;
}
.arrows {
  margin-bottom: 2mm;
  font-size: 9.5pt;
  color: #564c44;
}
.both {
  display: flex;
  gap: 8mm;
  align-items: flex-start;
}
.mirrored {
  transform: scaleX(-1);
}
.cards {
  list-style: none;
  padding: 0;
  margin: 0;
  columns: 2;
  column-gap: 6mm;
}
.cards li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 1mm 3mm;
  break-inside: avoid;
  margin-bottom: 2mm;
  padding: 2mm 3mm;
  border: 0.3mm solid #999;
  border-radius: 1.5mm;
  font-size: 9.5pt;
}
.cards .run {
  display: inline-flex;
  align-items: center;
  gap: 0.6mm;
  font-weight: 650;
}
.cards .sum {
  margin-inline-start: auto;
  color: #555;
}
.words {
  list-style: none;
  padding: 0;
  margin: 0;
  columns: 3;
  column-gap: 6mm;
  font-size: 8.8pt;
  line-height: 1.5;
  word-spacing: 0.14em;
}
.words li {
  break-inside: avoid;
}
.words .look {
  font-style: normal;
  margin-inline-end: 1mm;
}
.words span {
  color: #564c44;
}
@media screen and (width <= 900px) {
  .page {
    grid-template-columns: minmax(0, 1fr);
    padding: 8px 10px 24px;
  }
  .choices {
    position: static;
  }
  .paper {
    padding: 16px;
  }
  table {
    display: block;
    overflow-x: auto;
  }
  .words {
    columns: 1;
  }
}
@media print {
  .page {
    display: block;
    padding: 0;
  }
  .choices {
    display: none;
  }
  .paper {
    width: auto;
    padding: 0;
    box-shadow: none;
    overflow: visible;
  }
  .swatch {
    print-color-adjust: exact;
  }
  .words {
    columns: 3;
  }
}
</style>
