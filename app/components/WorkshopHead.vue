<script setup lang="ts">
defineProps<{ title: string }>()
</script>

<template>
  <header class="head">
    <NuxtLink to="/" class="mark" aria-label="Weben: the workshop"
      ><img src="/bead.svg" alt="" width="30" height="30" /> Weben</NuxtLink
    >
    <h1>{{ title }}</h1>
    <nav aria-label="Workshop"><slot /></nav>
  </header>
</template>

<style scoped>
.head {
  display: flex;
  align-items: center;
  gap: 12px 28px;
  padding: 20px 28px 12px;
  max-width: 1280px;
  margin: 0 auto;
  width: 100%;
  flex-wrap: wrap;
}
.mark {
  display: flex;
  gap: 8px;
  align-items: center;
  font: 700 20px/1 var(--title);
  color: var(--ink);
  text-decoration: none;
}
h1 {
  flex: 1;
}
nav {
  display: flex;
  gap: 10px;
  align-items: center;
  flex-wrap: wrap;
}
@media print {
  .head {
    display: none;
  }
}
@media (width <= 600px) {
  .head {
    padding: 14px 14px 8px;
    gap: 10px;
  }
  nav {
    gap: 4px;
  }
  nav :deep(.button) {
    padding: 0 11px;
    font-size: 14.5px;
  }
  h1 {
    flex-basis: 100%;
    order: 3;
  }
  nav {
    margin-left: auto;
  }
}
</style>
