<script setup lang="ts">
import { computed } from 'vue'
import { reasonsOf, type Term } from '#core/fit/reasoning'
import type { Piece } from '#core/piece/piece'
import { useLengths } from '../composables/lengths'

/** Every figure of the fit; each opens to the formula it comes from, with the values put in. */
const props = defineProps<{ piece: Piece }>()
const { length } = useLengths()
const reasons = computed(() => reasonsOf(props.piece))
const show = (term: Term) => (typeof term === 'string' ? term : length(term.mm, term.decimals))
</script>

<template>
  <div class="reasons">
    <h3>How this is reckoned</h3>
    <details v-for="r in reasons" :key="r.id" :data-reason="r.id">
      <summary>
        <span>{{ r.label }}</span><b class="figure">{{ show(r.result) }}</b>
      </summary>
      <p>
        {{ r.terms.map(show).join('') }} = <b>{{ show(r.result) }}</b>
      </p>
    </details>
  </div>
</template>

<style scoped>
.reasons {
  display: grid;
}
h3 {
  font: 650 15px/1.3 var(--title);
  margin-bottom: 4px;
}
details {
  border-top: 1px solid var(--line);
}
summary {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 12px;
  min-height: 36px;
  cursor: pointer;
  list-style: none;
  font-size: 14.5px;
}
summary::-webkit-details-marker {
  display: none;
}
summary span::before {
  content: '+';
  display: inline-block;
  width: 18px;
  color: var(--verdigris);
  font-weight: 700;
}
details[open] summary span::before {
  content: '−';
}
summary .figure {
  font-size: 18px;
}
p {
  padding: 0 0 10px 18px;
  font-size: 14.5px;
  color: var(--soft);
}
p b {
  color: var(--ink);
}
</style>
