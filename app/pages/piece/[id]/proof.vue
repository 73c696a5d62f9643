<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import { findPart } from '#core/piece/piece'
import { GROUP_NAMES, GROUPS, type Finding, type Mend } from '#core/proof/found'
import { meanStep, speakStep } from '#core/proof/meant'
import { mendAllSteps } from '#core/proof/mend'
import { rulesFor } from '#core/proof/proof'
import { keysOfSpots } from '#core/proof/spots'
import type { Step } from '#core/piece/step'
import { useBox } from '../../../stores/box'
import { useMat } from '../../../stores/mat'
import { usePiece } from '../../../stores/piece'
import { useProof } from '../../../stores/proof'
import ProofFinding from '../../../components/ProofFinding.vue'

const store = usePiece()
const proof = useProof()
const box = useBox()
const mat = useMat()
const piece = computed(() => store.piece!)
const problem = ref('')
onMounted(() => {
  // Without the box the rest is read all the same.
  box.fetch().catch(() => undefined)
})

const open = computed(() => proof.open.filter((f) => f.group !== 'safety'))
const cautions = computed(() => proof.open.filter((f) => f.group === 'safety'))
/** What is asked of a piece as this one. */
const asked = computed(() => rulesFor(piece.value))
const quiet = computed(() => proof.proof?.quiet ?? [])
const count = (weight: Finding['weight']) => open.value.filter((f) => f.weight === weight).length

/** Findings by part, gravest first: of the piece as a whole first, then in the order of the parts. */
const groups = computed(() =>
  [null, ...piece.value.parts.map((p) => p.id)]
    .map((id) => ({
      id,
      title: id === null ? 'The piece as a whole' : findPart(piece.value, id)!.name,
      findings: open.value.filter((f) => f.part === id),
    }))
    .filter((g) => g.findings.length > 0),
)

/** “Beads that…” in the middle of a sentence, without its full stop. */
const lowered = (says: string) => says.charAt(0).toLowerCase() + says.slice(1).replace(/\.$/, '')

function commit(label: string, steps: readonly Step[]) {
  problem.value = steps.length === 0 ? '' : (store.commit(label, steps) ?? '')
}
const mend = (finding: Finding, { label, steps }: Mend) => commit(label.slice(0, 80), steps)
function mendAll(finding: Finding) {
  const { steps, count: done } = mendAllSteps(piece.value, finding.rule)
  commit(`Mend ${done} of a kind`, steps)
}
const others = (finding: Finding) =>
  finding.mends.length === 0
    ? 0
    : open.value.filter((f) => f !== finding && f.rule === finding.rule && f.mends.length > 0).length

async function show(finding: Finding) {
  const part = finding.part ? findPart(piece.value, finding.part) : undefined
  if (!part) return
  mat.begin(store.id)
  mat.part = part.id
  mat.lit = { part: part.id, keys: keysOfSpots(part, finding.spots), says: finding.says }
  await navigateTo(`/piece/${store.id}/mat`)
}
</script>

<template>
  <main class="page">
    <h2 class="hidden">Proof</h2>
    <section class="answer" aria-live="polite" data-test="proof-answer">
      <template v-if="proof.proof === null">
        <p class="big">Reading…</p>
      </template>
      <template v-else>
        <p class="big">
          {{
            count('stops') + count('looks') > 0
              ? 'Not yet: mend these first'
              : open.length > 0
                ? 'Ready to begin; some things are worth knowing'
                : 'Nothing found'
          }}
        </p>
        <dl class="figures">
          <div
            v-for="[weight, name] in [
              ['stops', 'stop the work'],
              ['looks', 'look wrong'],
              ['note', 'worth knowing'],
            ] as const"
            :key="weight"
          >
            <dt class="quiet">{{ name }}</dt>
            <dd class="figure" :class="{ wants: weight !== 'note' && count(weight) > 0 }">{{ count(weight) }}</dd>
          </div>
        </dl>
      </template>
      <p class="state quiet">
        <template v-if="proof.stopped"
          >Reading was stopped: what stands here is of before.
          <button type="button" class="link" @click="proof.again()">Read it now</button></template
        >
        <template v-else-if="proof.reading || !proof.current"
          >Reading the piece as it is now…
          <button type="button" class="link" @click="proof.stop()">Stop</button>
          <span v-if="proof.progress" class="far" data-test="proof-far">
            <progress :value="proof.progress.done" :max="proof.progress.of" aria-label="How far it is read"></progress>
            {{ proof.progress.part ?? 'The piece' }}: {{ lowered(proof.progress.looksFor) }}
          </span></template
        >
        <template v-else>Read as it is now, and again after every change.</template>
      </p>
    </section>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <section v-for="g in groups" :key="g.id ?? ''" class="group" :aria-label="g.title">
      <h3>{{ g.title }}</h3>
      <ProofFinding
        v-for="f in g.findings"
        :key="`${f.rule} ${f.sign} ${f.says}`"
        :finding="f"
        :piece="piece"
        :more="others(f)"
        @show="show(f)"
        @mend="(m) => mend(f, m)"
        @all="mendAll(f)"
        @meant="(why) => commit('It is meant so', [meanStep(piece, f, why)])"
      />
    </section>
    <section v-if="cautions.length" class="group" aria-label="Take care">
      <h3>Take care</h3>
      <ul class="cautions">
        <li v-for="f in cautions" :key="f.says">{{ f.says }}</li>
      </ul>
    </section>
    <details v-if="proof.proof" class="asked" :open="open.length === 0">
      <summary>What it is read for: {{ asked.length }} questions</summary>
      <div class="asked-of">
        <section
          v-for="g in GROUPS.filter((id) => asked.some((r) => r.group === id))"
          :key="g"
          :aria-label="GROUP_NAMES[g]"
        >
          <h3>{{ GROUP_NAMES[g] }}</h3>
          <ul>
            <li v-for="r in asked.filter((one) => one.group === g)" :key="r.id">{{ r.looksFor }}</li>
          </ul>
        </section>
      </div>
    </details>
    <details v-if="quiet.length" class="group quiet-ones">
      <summary>{{ quiet.length === 1 ? 'One thing is' : `${quiet.length} things are` }} meant so</summary>
      <ProofFinding
        v-for="f in quiet"
        :key="`${f.rule} ${f.sign} ${f.says}`"
        :finding="f"
        :piece="piece"
        :more="0"
        @speak="commit('Say it again', [speakStep(piece, f)])"
      />
    </details>
  </main>
</template>

<style scoped>
.page {
  padding: 12px 24px 40px;
  display: grid;
  gap: 22px;
  max-width: 980px;
  width: 100%;
  margin: 0 auto;
}
.answer {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 8px 24px;
  align-items: end;
  background: var(--paper);
  border-radius: var(--round);
  padding: 18px 22px;
}
.big {
  font: 650 24px/1.2 var(--title);
  letter-spacing: -0.01em;
}
.figures {
  display: flex;
  gap: 26px;
  margin: 0;
}
.figures dd {
  margin: 2px 0 0;
  font-size: 30px;
}
.wants {
  color: var(--marigold);
}
.state {
  grid-column: 1 / -1;
}
.state .link {
  margin-inline-start: 8px;
}
.far {
  display: flex;
  gap: 12px;
  align-items: center;
  margin-top: 6px;
}
.far progress {
  width: 160px;
  flex: none;
  accent-color: var(--verdigris);
}
.group {
  display: grid;
  gap: 10px;
}
.cautions {
  margin: 0;
  padding: 14px 18px 14px 34px;
  background: var(--verdigris-wash);
  color: var(--verdigris);
  border-radius: var(--round-in);
  display: grid;
  gap: 6px;
}
.asked-of {
  columns: 2;
  column-gap: 40px;
  padding-top: 6px;
}
.asked-of section {
  break-inside: avoid;
  margin-bottom: 16px;
}
.asked-of h3 {
  font: 650 15px/1.3 var(--title);
  margin: 0 0 4px;
}
.asked-of ul {
  margin: 0;
  padding: 0 0 0 18px;
  display: grid;
  gap: 3px;
  color: var(--soft);
  font-size: 14.5px;
}
.asked summary,
.quiet-ones summary {
  cursor: pointer;
  color: var(--soft);
  padding: 8px 0;
}
.quiet-ones[open] > * + * {
  margin-top: 10px;
}
.problem {
  color: var(--madder);
}
@media (width <= 720px) {
  .asked-of {
    columns: 1;
  }
  .page {
    padding: 8px 12px 32px;
  }
  .answer {
    grid-template-columns: 1fr;
    padding: 16px;
  }
  .figures {
    justify-content: space-between;
  }
}
</style>
