<script setup lang="ts">
import Icon from '@/parts/Icon.vue'

/** Why it is this much of it. */
</script>

<template>
  <p class="task-why well">
    <Icon name="drop" :size="28" /><span><slot /></span>
  </p>
</template>

<style scoped>
.task-why {
  display: flex;
  gap: var(--s3);
  align-items: center;
  padding: var(--s3) var(--s4);
  font-size: var(--t-lead);
  background: var(--water-wash);
}
.task-why svg {
  color: var(--water);
}
</style>
