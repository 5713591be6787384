<script lang="ts">
export type Zone = 'list' | 'balance' | 'portion'
</script>

<script setup lang="ts">
import { computed } from 'vue'
import type { Worksheet } from '@/api/client'

/** Which part of the bench a phone shows; a diamond where there is something to watch. */
const zone = defineModel<Zone>({ required: true })
const props = defineProps<{ sheet: Worksheet }>()
const off = computed(
  () => Object.values(props.sheet.gauges).some((g) => g.state === 'low' || g.state === 'high') || props.sheet.notes.some((n) => n.kind === 'warning'),
)
const over = computed(() => props.sheet.portion.load?.verdict === 'over')
</script>

<template>
  <el-radio-group v-model="zone" class="pick zones" aria-label="Part of the bench">
    <el-radio-button value="list">List</el-radio-button>
    <el-radio-button value="balance"
      >Balance<template v-if="off"><i class="sign high" /><span class="vh">, something to watch</span></template></el-radio-button
    >
    <el-radio-button value="portion"
      >Portion<template v-if="over"><i class="sign high" /><span class="vh">, something to watch</span></template></el-radio-button
    >
  </el-radio-group>
</template>

<style scoped>
.zones.el-radio-group {
  display: flex;
  flex-wrap: nowrap;
}
.zones .el-radio-button {
  flex: 1;
}
.zones :deep(.el-radio-button__inner) {
  width: 100%;
}
.sign {
  margin-left: var(--s2);
  width: 12px;
  height: 12px;
}
</style>
