<script setup lang="ts">
/**
 * What belongs to the box: what lies in it, what to shop, what can be made of what is left, and the devices that
 * measure it.
 */
const route = useRoute()
const VIEWS = [
  { to: '/box', name: 'In the box' },
  { to: '/shop', name: 'Shopping' },
  { to: '/leftovers', name: 'Leftovers' },
  { to: '/devices', name: 'Devices' },
]
</script>

<template>
  <nav class="box-nav" aria-label="Box">
    <NuxtLink v-for="v in VIEWS" :key="v.to" :to="v.to" :aria-current="route.path === v.to ? 'page' : undefined">{{
      v.name
    }}</NuxtLink>
  </nav>
</template>

<style scoped>
.box-nav {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 22px;
  border-bottom: 1px solid var(--line);
}
a {
  color: var(--soft);
  text-decoration: none;
  padding: 8px 0 10px;
  border-bottom: 3px solid transparent;
  min-height: 44px;
}
a:hover {
  color: var(--ink);
}
a[aria-current] {
  color: var(--ink);
  font-weight: 700;
  border-color: var(--madder);
}
@media print {
  .box-nav {
    display: none;
  }
}
</style>
