<script setup lang="ts">
import type { BothSides } from './useSaved'

/** What two tablets changed at once: one of the two is kept, and the other stays among the earlier states. */
defineProps<{ conflict?: BothSides<{ name: string }> }>()
defineEmits<{ settle: [keep: 'mine' | 'theirs'] }>()
</script>

<template>
  <el-dialog
    :model-value="!!conflict"
    title="Changed on two tablets"
    width="min(560px, 96vw)"
    append-to-body
    :close-on-click-modal="false"
    :close-on-press-escape="false"
    :show-close="false">
    <p>
      Another tablet saved “{{ conflict?.current.document.name }}” while it was changed here. Nothing was overwritten. Keep one of the two; the other
      stays among its earlier states.
    </p>
    <template #footer>
      <el-button @click="$emit('settle', 'theirs')">Take the other tablet's</el-button>
      <el-button class="go" @click="$emit('settle', 'mine')">Keep this tablet's</el-button>
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
