<script setup lang="ts">
import AmountField from './AmountField.vue'
import StepButton from './StepButton.vue'

/** A figure that is typed, or stepped by hand. */
const value = defineModel<number | undefined>()
const props = defineProps<{ label: string; step?: number; placeholder?: string; limits?: { low: number; high: number } }>()
function by(steps: number) {
  const { low = -Infinity, high = Infinity } = props.limits ?? {}
  const next = (value.value ?? props.limits?.low ?? 0) + steps * (props.step ?? 1)
  value.value = Math.min(high, Math.max(low, Number(next.toFixed(4)))) // binary tenths do not add up
}
</script>

<template>
  <div class="figure-field">
    <StepButton icon="minus" :label="`Less: ${label}`" @step="by(-1)" />
    <AmountField v-model="value" :label="label" :placeholder="placeholder" :limits="limits" />
    <StepButton icon="plus" :label="`More: ${label}`" @step="by(1)" />
  </div>
</template>

<style scoped>
.figure-field {
  display: flex;
  gap: var(--s1);
  align-items: start;
  min-width: 0;
}
.amount-field {
  flex: 1 1 56px;
}
</style>
