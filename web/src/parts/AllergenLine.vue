<script setup lang="ts">
import Icon from './Icon.vue'

/** What is contained, what some makes may carry, and who decides: one line, wherever it stands. */
defineProps<{ text?: string }>()
</script>

<template>
  <span v-if="text" class="allergen-line"
    ><Icon name="allergen" :size="16" /><span>{{ text }}</span></span
  >
</template>

<style scoped>
.allergen-line {
  display: flex;
  gap: 6px;
  align-items: flex-start;
  color: var(--beet);
  font-size: var(--t-mini);
  line-height: 1.25;
  text-align: left;
}
.allergen-line svg {
  flex: none;
  margin-top: 1px;
}
.allergen-line span {
  overflow-wrap: anywhere;
  min-width: 0;
}
</style>
