<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { useBench } from '@/bench/bench'
import { strategies } from '@/bench/choices'

const bench = useBench()
const strategy = computed({
  get: () => bench.doc?.offset?.strategy ?? strategies[0]!.value,
  set: (value: Schemas['Strategy']) => bench.change((d) => (d.offset = { ...d.offset, strategy: value })),
})
</script>

<template>
  <el-radio-group v-model="strategy" class="pick" aria-label="How to offset">
    <el-radio-button v-for="s in strategies" :key="s.value" :value="s.value">{{ s.label }}</el-radio-button>
  </el-radio-group>
</template>

<style scoped>
.pick :deep(.el-radio-button__inner) {
  font-size: 14px;
  padding: 0 7px;
}
</style>
