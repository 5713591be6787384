<script setup lang="ts">
import Rail from './parts/Rail.vue'
</script>

<template>
  <div class="app">
    <Rail />
    <router-view />
  </div>
</template>

<style scoped>
.app {
  display: grid;
  grid-template-columns: 78px minmax(0, 1fr);
  height: 100dvh;
}
@media (max-width: 900px) {
  .app {
    grid-template: minmax(0, 1fr) 64px / minmax(0, 1fr);
  }
}
</style>
