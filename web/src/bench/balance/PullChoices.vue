<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { useBench } from '@/bench/bench'

/** Where a gauge can be pulled to in words. */
const props = defineProps<{ pull: Schemas['Pull']; label: string }>()
const bench = useBench()
const chosen = computed({
  get: () => props.pull.choices?.find((c) => c.chosen)?.text,
  set: (text) => {
    const to = props.pull.choices?.find((c) => c.text === text)?.at
    if (to !== undefined) bench.pull(props.pull, to)
  },
})
</script>

<template>
  <el-radio-group v-model="chosen" class="pick choices" :aria-label="label">
    <el-radio-button v-for="c in pull.choices" :key="c.text" :value="c.text">{{ c.text }}</el-radio-button>
  </el-radio-group>
</template>

<style scoped>
.choices.el-radio-group {
  display: flex;
}
.choices .el-radio-button {
  flex: 1 1 auto;
}
.choices :deep(.el-radio-button__inner) {
  width: 100%;
  height: 100%;
  padding: 0 4px;
  font-size: 14px;
  white-space: normal;
  line-height: 1.1;
}
.choices .is-active :deep(.el-radio-button__inner)::before {
  margin-right: 4px !important;
}
</style>
