<script setup lang="ts">
/** A panel beside the mat: a name, a way to close it, and what is in it. */
defineProps<{ title: string }>()
defineEmits<{ close: [] }>()
</script>

<template>
  <section class="panel" :aria-label="title">
    <header>
      <h3>{{ title }}</h3>
      <button type="button" class="link" @click="$emit('close')">Close</button>
    </header>
    <slot />
  </section>
</template>

<style scoped>
.panel {
  background: var(--paper);
  border-radius: var(--round);
  padding: 14px;
  display: grid;
  gap: 12px;
}
header {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  gap: 8px;
}
.link {
  min-height: 32px;
}
</style>
