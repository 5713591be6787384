<script setup lang="ts">
import type { Schemas } from '@/api/client'

/** An address as a camera reads it: dark on white in every theme, with the quiet rim it needs. */
defineProps<{ door: Schemas['HouseDoor'] }>()
const rim = 4
</script>

<template>
  <svg
    v-if="door.size"
    class="square"
    :viewBox="`${-rim} ${-rim} ${door.size + 2 * rim} ${door.size + 2 * rim}`"
    role="img"
    :aria-label="`Square to scan: ${door.url}`">
    <rect :x="-rim" :y="-rim" :width="door.size + 2 * rim" :height="door.size + 2 * rim" fill="#fff" />
    <path :d="door.dark" fill="#000" shape-rendering="crispEdges" />
  </svg>
</template>

<style scoped>
.square {
  flex: none;
  width: 148px;
  height: 148px;
  border-radius: var(--s2);
}
</style>
