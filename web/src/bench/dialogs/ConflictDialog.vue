<script setup lang="ts">
import { useBench } from '@/bench/bench'

const bench = useBench()
</script>

<template>
  <el-dialog
    :model-value="!!bench.conflict"
    title="Changed on two tablets"
    width="min(560px, 96vw)"
    :close-on-click-modal="false"
    :close-on-press-escape="false"
    :show-close="false">
    <p>
      Another tablet saved “{{ bench.conflict?.current.document.name }}” while it was changed here. Nothing was overwritten. Keep one of the two; the
      other stays among its earlier states.
    </p>
    <template #footer>
      <el-button @click="bench.settle('theirs')">Take the other tablet's</el-button>
      <el-button class="go" @click="bench.settle('mine')">Keep this tablet's</el-button>
    </template>
  </el-dialog>
</template>

<style scoped>
:deep(.el-dialog__footer) {
  display: flex;
  gap: var(--s2);
  justify-content: flex-end;
}
</style>
