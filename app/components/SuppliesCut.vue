<script setup lang="ts">
import { boundsOf } from '#core/bounds'
import { techniqueOf, type Part } from '#core/piece/piece'
import { settingSteps } from '#core/piece/recast'
import { supplySchema, type Supply } from '#core/piece/schema'
import { amountOf } from '#core/shelf/shelf'
import type { Help } from '#core/supply/thread'
import { EAR_WIRE_GAUGES } from '#core/supply/wire'
import { BIND_OVER_MM } from '#core/tally/cords'
import { NEEDLES, requireThread, THREADS } from '#core/thread/catalogue'
import { showNumber } from '#core/units/length'
import { closureName } from '#core/wear/closure'
import { useLengths } from '../composables/lengths'
import { useSupplies } from '../composables/supplies'
import { usePiece } from '../stores/piece'
import HoleAnswer from './HoleAnswer.vue'
import LengthField from './LengthField.vue'
import StitchSettings from './StitchSettings.vue'
import ToolList from './ToolList.vue'

/** What to cut, whether it goes through, and with which tools. */
const { piece, supply, buy, cuts, wires, rings, caps, checks, made, sewn, onlyCords, spool, clasp, problem, set } =
  useSupplies()
const store = usePiece()
const { length, long } = useLengths()

const lettersOf = (spec: string) => buy.value.filter((b) => b.bead.spec === spec).map((b) => b.bead.letter)
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
</script>

<template>
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
    <p v-if="sewn && (spool || clasp)" class="quiet">
      In the box:
      {{
        [
          spool ? `${long(amountOf(spool.value))} of ${requireThread(supply.thread).name}` : '',
          clasp ? `${amountOf(clasp.value)} × ${closureName(piece.fit.closure).toLowerCase()}` : '',
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
    <div v-if="sewn" class="fields">
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
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
.cap {
  display: grid;
  gap: 2px;
  padding: 12px 14px;
  background: var(--paper);
  border-radius: var(--round-in);
}
.what {
  display: grid;
  gap: 2px;
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
</style>
