<script setup lang="ts">
import { computed } from 'vue'
import { useBench } from './bench'
import { ladles } from './choices'

const props = defineProps<{ volumeMl: number }>()
const bench = useBench()
const ml = computed({
  get: () => props.volumeMl,
  set: (v: number | undefined) => v && bench.change((d) => (d.portion = { ...d.portion, volume_ml: v })),
})
</script>

<template>
  <div class="ladle">
    <b id="ladle-label">Ladle</b>
    <el-radio-group v-model="ml" class="pick" aria-labelledby="ladle-label">
      <el-radio-button v-for="l in ladles" :key="l" :value="l">{{ l }}</el-radio-button>
    </el-radio-group>
    <el-input-number v-model="ml" :min="5" :max="1000" :step="5" aria-label="Portion in ml" />
    <span class="muted">ml</span>
  </div>
</template>

<style scoped>
.ladle { display: grid; grid-template-columns: auto 1fr; align-items: center; gap: var(--s2); }
.pick { width: 100%; }
.pick :deep(.el-radio-button) { flex: 1; }
.pick :deep(.el-radio-button__inner) { padding: 0 2px; width: 100%; }
.pick :deep(.el-radio-button.is-active .el-radio-button__inner::before) { margin-right: 4px; width: 9px; height: 5px; }
.el-input-number { grid-column: 2; width: 100%; }
.muted { grid-column: 1; grid-row: 2; text-align: right; }
</style>
