<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import StepButton from '@/parts/StepButton.vue'
import { fats, useHeat, whens, type Cook } from './heat'

const props = defineProps<{ cook: Cook; chosen?: Schemas['Cooking'] }>()
const heat = useHeat()
const reach = computed(() => props.cook.choices.fat_g)
const grams = computed(() => Math.round(props.cook.fat.grams_per_portion * 10) / 10)
function more(by: number) {
  const { kind, ingredients } = props.cook.fat
  const { low, high, step } = reach.value
  const each = Math.min(high, Math.max(low, step * Math.round((grams.value + by) / step))) // on the hand's own marks
  if (ingredients?.length) heat.panFat(`${kind ? fats[kind] : 'fat'} for the pan`, ingredients, each)
}
</script>

<template>
  <section class="fat" aria-label="Fat for the plate">
    <b>Fat</b>
    <el-radio-group
      :model-value="cook.fat.counted ? cook.fat.kind : chosen?.fat"
      class="pick"
      aria-label="Fat for the plate"
      @update:model-value="heat.chooseFat($event as never)">
      <el-radio-button v-for="f in cook.choices.fats" :key="f" :value="f">{{ fats[f] }}</el-radio-button>
    </el-radio-group>
    <el-select :model-value="cook.fat.when" aria-label="When the plate is greased" @update:model-value="heat.wish({ when: $event })">
      <el-option v-for="w in cook.choices.whens" :key="w" :value="w" :label="whens[w]" />
    </el-select>
    <div v-if="cook.fat.ingredients?.length" class="each" role="group" aria-label="Fat for each piece, in grams">
      <StepButton icon="minus" :label="`${reach.step} g less for each piece`" :disabled="grams <= reach.low" @step="more(-reach.step)" />
      <output>{{ grams.toFixed(1) }} g</output>
      <StepButton icon="plus" :label="`${reach.step} g more for each piece`" @step="more(reach.step)" />
      <el-button v-if="cook.fat.own" class="ghost" @click="heat.panFat()">the usual</el-button>
    </div>
    <el-checkbox v-if="cook.choices.lacy" :model-value="!!chosen?.lacy" @update:model-value="heat.wish({ lacy: $event as boolean })"
      >crisp, lacy edge</el-checkbox
    >
    <p>{{ cook.fat.text }}</p>
  </section>
</template>

<style scoped>
.fat {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s2) var(--s3);
}
b {
  font-size: var(--t-lead);
}
.el-select {
  width: 190px;
}
.each {
  display: flex;
  align-items: center;
  gap: var(--s1);
}
output {
  min-width: 60px;
  text-align: center;
  font-weight: 750;
}
.el-checkbox {
  min-height: var(--touch);
}
p {
  flex: 1 1 240px;
  font-size: 14px;
  color: var(--ink-2);
  line-height: 1.25;
}
</style>
