<script setup lang="ts">
import type { Schemas } from '@/api/client'
import { fats, useHeat, whens, type Cook } from './heat'

defineProps<{ cook: Cook; chosen?: Schemas['Cooking'] }>()
const heat = useHeat()
</script>

<template>
  <section class="fat" aria-label="Fat for the plate">
    <b>Fat</b>
    <el-radio-group
      :model-value="chosen?.fat ?? (cook.fat.counted ? cook.fat.kind : undefined)"
      class="pick"
      aria-label="Fat for the plate"
      @update:model-value="heat.wish({ fat: $event as never })">
      <el-radio-button v-for="f in cook.choices.fats" :key="f" :value="f">{{ fats[f] }}</el-radio-button>
    </el-radio-group>
    <el-select :model-value="cook.fat.when" aria-label="When the plate is greased" @update:model-value="heat.wish({ when: $event })">
      <el-option v-for="w in cook.choices.whens" :key="w" :value="w" :label="whens[w]" />
    </el-select>
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
