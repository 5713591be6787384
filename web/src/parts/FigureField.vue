<script setup lang="ts">
import AmountField from './AmountField.vue'
import StepButton from './StepButton.vue'

/** A figure that is typed, or stepped by hand. */
const value = defineModel<number | undefined>()
const props = defineProps<{ label: string; step?: number; placeholder?: string; limits?: { low: number; high: number } }>()
/** A step lands on a step: 0.1 is no sum of binary tenths. */
function by(steps: number) {
  const each = props.step ?? 1
  const next = Math.round((value.value ?? props.limits?.low ?? 0) / each + steps) * each
  const decimals = String(each).split('.')[1]?.length ?? 0
  value.value = Math.min(props.limits?.high ?? Infinity, Math.max(props.limits?.low ?? -Infinity, Number(next.toFixed(decimals))))
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
