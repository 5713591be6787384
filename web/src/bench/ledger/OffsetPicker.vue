<script setup lang="ts">
import { computed } from 'vue'
import { useMediaQuery } from '@vueuse/core'
import type { Schemas } from '@/api/client'
import { useBench } from '@/bench/bench'
import { strategies } from '@/bench/choices'

const bench = useBench()
const wide = useMediaQuery('(min-width: 1200px)')
const strategy = computed({
  get: () => bench.doc?.offset?.strategy ?? strategies[0]!.value,
  set: (value: Schemas['Strategy']) => bench.change((d) => (d.offset = { ...d.offset, strategy: value })),
})
</script>

<template>
  <el-radio-group v-if="wide" v-model="strategy" class="pick" aria-label="How to offset">
    <el-radio-button v-for="s in strategies" :key="s.value" :value="s.value">{{ s.label }}</el-radio-button>
  </el-radio-group>
  <el-select v-else v-model="strategy" class="ways" aria-label="How to offset">
    <template #prefix>offset</template>
    <el-option v-for="s in strategies" :key="s.value" :value="s.value" :label="s.label"
      ><b>{{ s.label }}</b> <small>{{ s.does }}</small></el-option
    >
  </el-select>
</template>

<style scoped>
.pick :deep(.el-radio-button__inner) {
  font-size: 14px;
  padding: 0 7px;
}
.ways {
  flex: 1 1 150px;
  min-width: 0;
  max-width: 300px;
}
.ways :deep(.el-select__wrapper) {
  padding: 0 var(--s2);
  gap: 5px;
}
@media (max-width: 700px) {
  .ways :deep(.el-select__prefix) {
    display: none;
  }
}
small {
  color: var(--ink-2);
  font-size: var(--t-mini);
}
</style>
