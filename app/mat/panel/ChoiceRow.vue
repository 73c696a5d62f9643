<script setup lang="ts" generic="T extends string">
/** A few choices of which one holds: words side by side. */
defineProps<{
  label: string
  items: readonly { readonly value: T; readonly title: string; readonly says?: string; readonly off?: boolean }[]
}>()
const model = defineModel<T>({ required: true })
</script>

<template>
  <div class="row" role="radiogroup" :aria-label="label">
    <span class="quiet">{{ label }}</span>
    <div class="words">
      <button
        v-for="item in items"
        :key="item.value"
        type="button"
        role="radio"
        :aria-checked="model === item.value"
        :disabled="item.off"
        :title="item.says"
        @click="model = item.value"
      >
        {{ item.title }}
      </button>
    </div>
  </div>
</template>

<style scoped>
.row {
  display: grid;
  gap: 4px;
}
.words {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
}
button {
  min-height: 34px;
  padding: 0 11px;
  border: 0;
  border-radius: 9px;
  background: var(--ground);
  color: var(--ink);
  font: 500 14px/1 var(--text);
  cursor: pointer;
}
button:hover {
  background: color-mix(in srgb, var(--ink) 10%, var(--ground));
}
button:disabled {
  opacity: 0.45;
  cursor: default;
}
[aria-checked='true'],
[aria-checked='true']:hover {
  background: var(--dark);
  color: var(--dark-ink);
}
@media (width <= 900px) {
  button {
    min-height: 44px;
  }
}
</style>
