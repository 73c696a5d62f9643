<script setup lang="ts">
import { computed, ref } from 'vue'
import { BEAD_SPECS, SHAPE_FACTS, shapeName, type BeadShape } from '#core/bead/spec'
import { CLOSURES } from '#core/wear/closure'
import { CUFF_GAP_MM, EARRING_GRAMS, ELASTIC_LESS_MM, FIT_TABLE, NECKLACE_LENGTHS } from '#core/wear/kind'
import { NEEDLES, THREADS } from '#core/thread/catalogue'
import { loopWireMm } from '#core/hang/pin'
import { EAR_WIRE_MM, coilTurnMm, coilWire, wireThatPasses } from '#core/supply/wire'
import { isoFromGb, isoFromUs, ringSize, usFromIso } from '#core/units/ring-size'
import { wireDiameterMm } from '#core/units/wire-gauge'
import { inchFraction, mmFromInch, showNumber, tryParseLength } from '#core/units/length'
import { useScreen } from '../../composables/screen'
import { useLengths } from '../../composables/lengths'
import WorkshopHead from '../../components/WorkshopHead.vue'
import NumberField from '../../components/NumberField.vue'

useHead({ title: 'Reference · Weben' })
const { length, unit } = useLengths()
const { pxPerMm, measured } = useScreen()

// ---- convert a length
const lengthText = ref('7 1/4 in')
const read = computed(() => tryParseLength(lengthText.value, unit.value))
// ---- convert a ring size
const system = ref<'ISO' | 'US' | 'GB'>('US')
const ringText = ref('7')
const ring = computed(() => {
  const n = Number(ringText.value.replace(',', '.'))
  const iso =
    system.value === 'GB'
      ? isoFromGb(ringText.value)
      : ringText.value.trim() === '' || !Number.isFinite(n)
        ? null
        : system.value === 'US'
          ? isoFromUs(n)
          : n
  return iso !== null && iso >= 30 && iso <= 90 ? ringSize(iso) : null
})
const rings = Array.from({ length: 17 }, (_, k) => ringSize(42 + 2 * k))
const gauges = [16, 18, 20, 22, 24, 26, 28, 30]
// ---- wire
const wire = ref(22)
const pliers = ref(3)
const coil = ref(10)
const core = ref(1)
const CORE = { least: 0, most: 50, whole: false }
const COIL = { least: 0, most: 5000, whole: false }
const coiled = computed(() => coilWire(coil.value, core.value, wire.value))
const shapes = computed(() =>
  [...new Set(BEAD_SPECS.map((s) => s.shape))].map((shape) => ({
    shape,
    name: shapeName(shape),
    fact: SHAPE_FACTS[shape as BeadShape],
    specs: BEAD_SPECS.filter((s) => s.shape === shape),
  })),
)
const SECTIONS = [
  ['measure', 'How to measure'],
  ['convert', 'Inches and rings'],
  ['lengths', 'Lengths and room'],
  ['beads', 'Bead sizes'],
  ['wire', 'Wire'],
  ['thread', 'Thread and needles'],
  ['cautions', 'Cautions'],
] as const
</script>

<template>
  <div>
    <WorkshopHead title="Reference"
      ><NuxtLink to="/reference/strips" class="button">Strips to print</NuxtLink
      ><NuxtLink to="/" class="button plain">Back</NuxtLink></WorkshopHead
    >
    <main class="page">
      <nav class="jumps" aria-label="Reference">
        <a v-for="[id, name] in SECTIONS" :key="id" :href="`#${id}`">{{ name }}</a>
      </nav>

      <section id="measure" aria-labelledby="h-measure">
        <h2 id="h-measure">How to measure</h2>
        <dl>
          <template v-for="k in FIT_TABLE" :key="k.kind"
            ><dt>{{ k.name }}: {{ k.measureName.toLowerCase() }}</dt>
            <dd>
              {{ k.howTo
              }}<template v-if="k.passes">
                Without a clasp also: {{ k.passes.name.toLowerCase() }}. {{ k.passes.howTo }}</template
              >
            </dd></template
          >
        </dl>
      </section>

      <section id="convert" aria-labelledby="h-convert">
        <h2 id="h-convert">Inches and rings</h2>
        <div class="tools">
          <div class="tool">
            <VTextField
              v-model="lengthText"
              label="A length, as you type it"
              :error-messages="read.ok ? [] : [read.problems[0]!.says]"
            />
            <p v-if="read.ok" data-test="length">
              <span class="figure">{{ showNumber(read.value, 2) }} mm</span>
              <span class="figure">{{ inchFraction(read.value) }} in</span>
            </p>
            <p class="quiet">1 in = 25.4 mm exactly; inches to the nearest sixteenth.</p>
          </div>
          <div class="tool">
            <div class="row">
              <VSelect
                v-model="system"
                :items="[
                  { value: 'ISO', title: 'ISO, mm round' },
                  { value: 'US', title: 'United States' },
                  { value: 'GB', title: 'British letter' },
                ]"
                label="Ring size in"
              /><VTextField v-model="ringText" label="Size" />
            </div>
            <p v-if="ring" class="ring" data-test="ring">
              <svg
                :width="ring.diameterMm * pxPerMm + 4"
                :height="ring.diameterMm * pxPerMm + 4"
                role="img"
                :aria-label="`Circle of ${showNumber(ring.diameterMm, 1)} mm`"
              >
                <circle
                  :cx="(ring.diameterMm * pxPerMm) / 2 + 2"
                  :cy="(ring.diameterMm * pxPerMm) / 2 + 2"
                  :r="(ring.diameterMm * pxPerMm) / 2"
                  fill="none"
                  stroke="currentColor"
                  stroke-width="1.5"
                /></svg
              ><span
                >ISO <b>{{ showNumber(ring.iso, 1) }}</b><br />United States
                <b>{{ showNumber(usFromIso(ring.iso), 2) }}</b><br />British <b>{{ ring.gb }}</b><br />{{
                  length(ring.diameterMm, 1)
                }}
                across inside</span
              >
            </p>
            <p v-else class="warn">That is no ring size in this system.</p>
            <p class="quiet">
              {{
                measured
                  ? 'The circle has its true size: lay a ring on it.'
                  : 'The circle is true once the screen is measured in the settings.'
              }}
            </p>
          </div>
        </div>
        <div class="wide" tabindex="0" role="region" aria-label="Ring sizes">
          <table>
            <thead>
              <tr>
                <th scope="col">ISO, mm round</th>
                <th v-for="r in rings" :key="r.iso" scope="col" class="number">{{ r.iso }}</th>
              </tr>
            </thead>
            <tbody>
              <tr>
                <th scope="row">United States</th>
                <td v-for="r in rings" :key="r.iso" class="number">{{ r.us }}</td>
              </tr>
              <tr>
                <th scope="row">British</th>
                <td v-for="r in rings" :key="r.iso" class="number">{{ r.gb }}</td>
              </tr>
              <tr>
                <th scope="row">Across, mm</th>
                <td v-for="r in rings" :key="r.iso" class="number">{{ showNumber(r.diameterMm, 1) }}</td>
              </tr>
            </tbody>
          </table>
        </div>
        <p class="quiet">
          ISO 8653: the size is the inside round in mm. United States: 0.458 in + 0.032 in × size across. British (BS
          6820): C is 40 mm, 1.25 mm a letter. A ring wider than 6 mm needs half a size more.
        </p>
      </section>

      <section id="lengths" aria-labelledby="h-lengths">
        <h2 id="h-lengths">Lengths and room</h2>
        <div class="tools">
          <table>
            <caption class="hidden">
              Room
            </caption>
            <thead>
              <tr>
                <th scope="col">Room at the body</th>
                <th scope="col" class="number">{{ unit }}</th>
              </tr>
            </thead>
            <tbody>
              <template v-for="k in FIT_TABLE" :key="k.kind"
                ><tr v-for="e in k.eases" :key="e.id">
                  <th scope="row">{{ k.name }}, {{ e.name }}</th>
                  <td class="number">{{ length(e.mm) }}</td>
                </tr></template
              >
              <tr>
                <th scope="row">Elastic: less than the wrist</th>
                <td class="number">0–{{ length(ELASTIC_LESS_MM) }}</td>
              </tr>
              <tr>
                <th scope="row">Rigid cuff: of the wrist, and its gap</th>
                <td class="number">¾–⅘, {{ CUFF_GAP_MM.least }}–{{ length(CUFF_GAP_MM.most) }}</td>
              </tr>
              <tr>
                <th scope="row">One earring, comfortable; careful above</th>
                <td class="number">{{ EARRING_GRAMS.comfortable }} g; {{ EARRING_GRAMS.careful }} g</td>
              </tr>
            </tbody>
          </table>
          <table>
            <caption class="hidden">
              Necklaces
            </caption>
            <thead>
              <tr>
                <th scope="col">Necklace</th>
                <th scope="col" class="number">inches</th>
                <th scope="col" class="number">mm</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="l in NECKLACE_LENGTHS" :key="l.name">
                <th scope="row">{{ l.name }}</th>
                <td class="number">{{ l.least }}–{{ l.most }}</td>
                <td class="number">{{ showNumber(mmFromInch(l.least)) }}–{{ showNumber(mmFromInch(l.most)) }}</td>
              </tr>
            </tbody>
          </table>
          <table>
            <caption class="hidden">
              Closures
            </caption>
            <thead>
              <tr>
                <th scope="col">Closure, closed</th>
                <th scope="col" class="number">{{ unit }}</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="c in CLOSURES.filter((c) => c.lengthMm > 0)" :key="c.kind">
                <th scope="row">{{ c.name }}</th>
                <td class="number">{{ length(c.lengthMm) }}</td>
              </tr>
            </tbody>
          </table>
        </div>
      </section>

      <section id="beads" aria-labelledby="h-beads">
        <h2 id="h-beads">Bead sizes</h2>
        <p class="quiet">
          Nominal figures, about ± 10 %: your own beads may differ, so measure ten in a row. Sizes with a slash: the
          larger the number, the smaller the bead.
        </p>
        <div class="wide" tabindex="0" role="region" aria-label="Table of bead sizes">
          <table>
            <thead>
              <tr>
                <th scope="col">Bead</th>
                <th scope="col" class="number">across, mm</th>
                <th scope="col" class="number">along, mm</th>
                <th scope="col" class="number">hole, mm</th>
                <th scope="col" class="number">in a gram</th>
                <th scope="col" class="number">in a gram, strung</th>
              </tr>
            </thead>
            <tbody v-for="s in shapes" :key="s.shape">
              <tr v-for="b in s.specs" :key="b.id">
                <th scope="row">{{ b.name }}</th>
                <td class="number">{{ b.d }}</td>
                <td class="number">{{ b.l }}</td>
                <td class="number">{{ b.h }}</td>
                <td class="number">{{ b.perGram }}</td>
                <td class="number">{{ length(b.perGram * b.l) }}</td>
              </tr>
              <tr v-if="s.fact">
                <td colspan="6" class="quiet fact">{{ s.fact }}</td>
              </tr>
            </tbody>
          </table>
        </div>
      </section>

      <section id="wire" aria-labelledby="h-wire">
        <h2 id="h-wire">Wire</h2>
        <div class="wide" tabindex="0" role="region" aria-label="Wire gauges">
          <table>
            <thead>
              <tr>
                <th scope="col">Gauge</th>
                <th v-for="g in gauges" :key="g" scope="col" class="number">{{ g }}</th>
              </tr>
            </thead>
            <tbody>
              <tr>
                <th scope="row">mm</th>
                <td v-for="g in gauges" :key="g" class="number">{{ showNumber(wireDiameterMm(g), 2) }}</td>
              </tr>
            </tbody>
          </table>
        </div>
        <p class="quiet">
          American wire gauge (ASTM B258): 0.127 × 92^((36 − g) / 39) mm; the larger the number, the thinner the wire.
          Ear wires and posts: 20 to 22, about {{ EAR_WIRE_MM }} mm of wire each.
        </p>
        <div class="tools">
          <div class="tool">
            <div class="row">
              <VSelect v-model="wire" :items="gauges" label="Gauge" /><NumberField
                v-model="core"
                label="Core, mm"
                :bounds="CORE"
              /><NumberField v-model="coil" label="Coil, mm long" :bounds="COIL" />
            </div>
            <p>
              <span class="figure">{{ coiled.turns }} turns</span>
              <span class="figure">{{ length(coiled.wireMm) }}</span>
            </p>
            <p class="quiet">
              π × ({{ showNumber(core, 1) }} + {{ showNumber(wireDiameterMm(wire), 2) }}) =
              {{ showNumber(coilTurnMm(core, wireDiameterMm(wire)), 2) }} mm a turn.
            </p>
          </div>
          <div class="tool">
            <NumberField v-model="pliers" label="Round-nose pliers there, mm" :bounds="CORE" />
            <p>
              <span class="figure">{{ length(loopWireMm(pliers), 1) }}</span> for a simple loop
            </p>
            <p class="quiet">
              {{ showNumber(pliers, 1) }} × π + 2 mm. A hole of 0.8 mm passed twice takes
              {{ wireThatPasses(0.8, 2) }} gauge at most.
            </p>
          </div>
        </div>
      </section>

      <section id="thread" aria-labelledby="h-thread">
        <h2 id="h-thread">Thread and needles</h2>
        <div class="tools">
          <table>
            <thead>
              <tr>
                <th scope="col">Thread</th>
                <th scope="col" class="number">mm</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="t in THREADS" :key="t.id">
                <th scope="row">{{ t.name }}</th>
                <td class="number">{{ t.diameterMm.toFixed(2) }}</td>
              </tr>
            </tbody>
          </table>
          <table>
            <thead>
              <tr>
                <th scope="col">Needle</th>
                <th scope="col" class="number">across the eye, mm</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="n in NEEDLES" :key="n.id">
                <th scope="row">{{ n.name }}</th>
                <td class="number">{{ n.eyeMm.toFixed(2) }}</td>
              </tr>
            </tbody>
          </table>
          <table>
            <thead>
              <tr>
                <th scope="col">Cord and elastic</th>
                <th scope="col" class="number">mm</th>
              </tr>
            </thead>
            <tbody>
              <tr>
                <th scope="row">bead cord</th>
                <td class="number">0.4, 0.5</td>
              </tr>
              <tr>
                <th scope="row">waxed cord</th>
                <td class="number">1.0, 1.5</td>
              </tr>
              <tr>
                <th scope="row">satin cord</th>
                <td class="number">2.0</td>
              </tr>
              <tr>
                <th scope="row">leather</th>
                <td class="number">1.5, 2.0</td>
              </tr>
              <tr>
                <th scope="row">elastic</th>
                <td class="number">0.5, 0.7, 1.0, 1.5</td>
              </tr>
            </tbody>
          </table>
        </div>
      </section>

      <section id="cautions" aria-labelledby="h-cautions">
        <h2 id="h-cautions">Cautions</h2>
        <p class="quiet">Local rules and trained people go first.</p>
        <ul>
          <li>
            Small beads, magnets and cords are dangerous to small children: they choke, swallow, strangle. A child’s
            necklace needs a breakaway clasp. EN 71-1, ASTM F2923 and 16 CFR 1501 set limits; what is sold must follow
            the law of the place where it is sold.
          </li>
          <li>Magnets must be kept from people with implanted devices.</li>
          <li>
            Metal in a pierced ear: nickel release is limited in the EU (REACH Annex XVII entry 27). Say “nickel-free”
            only with the maker’s statement. File post ends smooth. Piercing is for trained people; a sore ear needs a
            doctor.
          </li>
          <li>Wire springs when cut: wear eye protection and tuck ends in. Thread burners and flames burn.</li>
          <li>Glue: read the label, air the room, keep it off the skin; instant glue bonds skin at once.</li>
          <li>Broken glass beads: sweep, never brush by hand. Good light, a straight back, breaks.</li>
          <li>Old or unknown metal parts may hold lead or cadmium: not for children, not to be mouthed.</li>
        </ul>
      </section>
    </main>
  </div>
</template>

<style scoped>
.page {
  max-width: 1180px;
  margin: 0 auto;
  padding: 0 28px 60px;
  display: grid;
  gap: 34px;
}
.jumps {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 20px;
  border-bottom: 1px solid var(--line);
}
.jumps a {
  min-height: 44px;
  display: inline-flex;
  align-items: center;
}
section {
  display: grid;
  gap: 14px;
  scroll-margin-top: 12px;
}
dl {
  margin: 0;
  display: grid;
  grid-template-columns: minmax(160px, 240px) 1fr;
  gap: 8px 20px;
}
dt {
  font-weight: 600;
}
dd {
  margin: 0;
  color: var(--soft);
}
.tools {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(280px, 1fr));
  gap: 24px 40px;
  align-items: start;
}
.tool {
  display: grid;
  gap: 10px;
}
.tool .figure {
  font-size: 26px;
  margin-right: 16px;
}
.row {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(90px, 1fr));
  gap: 12px;
}
.ring {
  display: flex;
  gap: 20px;
  align-items: center;
  color: var(--verdigris);
}
.ring span {
  color: var(--ink);
}
.wide {
  overflow-x: auto;
}
table {
  font-size: 14.5px;
  width: 100%;
}
th {
  text-wrap: balance;
}
th,
td {
  padding: 6px 12px 6px 0;
  border-top: 1px solid var(--line);
}
.wide th,
.wide td,
td {
  white-space: nowrap;
}
thead th {
  border: 0;
}
tbody th {
  color: var(--ink);
}
.wide .fact {
  white-space: normal;
  border: 0;
  padding-top: 0;
}
ul {
  margin: 0;
  padding-left: 20px;
  display: grid;
  gap: 8px;
}
.warn {
  color: var(--marigold);
}
@media (width <= 600px) {
  .page {
    padding: 0 14px 40px;
  }
  dl {
    grid-template-columns: 1fr;
    gap: 2px;
  }
  dd {
    margin-bottom: 10px;
  }
}
</style>
