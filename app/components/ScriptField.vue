<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { techniqueOf, type Part, type Piece } from '#core/piece/piece'
import { scriptSteps } from '#core/piece/recast'
import type { Step } from '#core/piece/step'

/** A plan that is written as a text: read while it is typed, taken with one press. */
const props = defineProps<{ piece: Piece; part: Part }>()
const emit = defineEmits<{ steps: [label: string, steps: readonly Step[]] }>()
const script = computed(() => techniqueOf(props.part).script!)
const written = computed(() => script.value.write(props.part.plan!))
const text = ref(written.value)
watch(written, (now) => {
  text.value = now
})
const changed = computed(() => text.value.trim() !== written.value.trim())
const read = computed(() => (changed.value ? script.value.read(text.value, props.part.plan!) : null))
const problems = computed(() => (read.value && !read.value.ok ? read.value.problems.slice(0, 4) : []))
const said = ref('')
function take() {
  const steps = scriptSteps(props.piece, props.part, text.value)
  said.value = steps.ok ? '' : steps.problems[0]!.says
  if (steps.ok) emit('steps', script.value.label, steps.value)
}
</script>

<template>
  <div class="script">
    <label for="script">{{ script.label }}</label>
    <textarea
      id="script"
      v-model="text"
      rows="14"
      spellcheck="false"
      autocapitalize="off"
      autocomplete="off"
      maxlength="33000"
      aria-describedby="script-says"
    />
    <div id="script-says" aria-live="polite">
      <p v-if="problems.length === 0 && !said" class="quiet">{{ script.help }}</p>
      <ul v-else>
        <li v-for="p in said ? [said] : problems.map((one) => one.says)" :key="p">{{ p }}</li>
      </ul>
    </div>
    <span class="acts">
      <button type="button" class="button" :disabled="!changed || problems.length > 0" @click="take">
        Work by this recipe
      </button>
      <button v-if="changed" type="button" class="link" @click="text = written">As it was</button>
    </span>
  </div>
</template>

<style scoped>
.script {
  display: grid;
  gap: 6px;
}
label {
  font-weight: 650;
}
textarea {
  width: 100%;
  padding: 10px 12px;
  border: 1.5px solid var(--edge);
  border-radius: 10px;
  background: var(--paper);
  color: var(--ink);
  font: 400 13.5px/1.5 var(--mono, ui-monospace, monospace);
  white-space: pre;
  overflow: auto;
  tab-size: 2;
}
ul {
  margin: 0;
  padding-inline-start: 18px;
  color: var(--marigold);
}
.acts {
  display: flex;
  gap: 10px;
  align-items: center;
}
</style>
