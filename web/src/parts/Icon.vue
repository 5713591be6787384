<script setup lang="ts">
import { icons, type IconName } from './icons'

defineProps<{ name: IconName; size?: number }>()
</script>

<template>
  <svg
    class="icon"
    :width="size ?? 20"
    :height="size ?? 20"
    viewBox="0 0 24 24"
    fill="none"
    stroke="currentColor"
    stroke-width="2"
    stroke-linecap="round"
    stroke-linejoin="round"
    aria-hidden="true">
    <path v-for="d in icons[name].lines" :key="d" :d="d" />
    <path v-for="d in icons[name].solid ?? []" :key="d" :d="d" fill="currentColor" />
  </svg>
</template>

<style scoped>
.icon {
  flex: none;
  display: inline-block;
}
</style>
