<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import AmountField from '@/parts/AmountField.vue'
import { useHeat, type Cook } from './heat'

/** The heat in steps: where the plate stands while mixing, when it is poured on, and from the flip on. */
const props = defineProps<{ cook: Cook; iron: boolean; chosen?: Schemas['Cooking'] }>()
const heat = useHeat()
type At = Schemas['HeatStep']['at']
const moments = computed(() =>
  (
    [
      { at: 'mixing', name: 'while mixing' },
      { at: 'pour', name: 'at the pour' },
      { at: 'flip', name: 'at the flip' },
    ] as { at: At; name: string }[]
  )
    .filter((m) => !(props.iron && m.at === 'flip'))
    .map((m) => ({ ...m, step: props.chosen?.heat?.find((h) => h.at === m.at), says: props.cook.heat?.find((h) => h.at === m.at)?.text })),
)
const marks = computed(() => props.cook.dial_face?.marks ?? [])
</script>

<template>
  <section class="steps" aria-label="Heat in steps">
    <b>In steps</b>
    <label v-for="m in moments" :key="m.at">
      <span>{{ m.name }}</span>
      <el-select
        v-if="marks.length"
        :model-value="m.step?.mark ?? (m.step?.c === undefined ? undefined : `${m.step.c} °C`)"
        :aria-label="`Heat ${m.name}`"
        placeholder="no step"
        @update:model-value="heat.step(m.at, $event ? { mark: $event } : undefined)">
        <el-option value="" label="no step" />
        <el-option v-for="k in marks" :key="k" :value="k" :label="k" />
      </el-select>
      <AmountField
        v-else
        :model-value="m.step?.c"
        :label="`Heat ${m.name}, °C`"
        placeholder="°C"
        :limits="cook.choices.heat_c"
        @update:model-value="heat.step(m.at, $event === undefined ? undefined : { c: $event })" />
      <small v-if="m.says">{{ m.says }}</small>
    </label>
  </section>
</template>

<style scoped>
.steps {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s1) var(--s4);
}
b {
  font-size: var(--t-lead);
}
label {
  display: flex;
  align-items: center;
  gap: var(--s2);
}
span,
small {
  color: var(--ink-2);
  white-space: nowrap;
}
.el-select {
  width: 132px;
}
.amount-field {
  width: 92px;
}
@media (max-width: 560px) {
  label {
    width: 100%;
  }
  span {
    flex: 0 0 108px;
  }
}
</style>
