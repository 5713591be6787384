<script setup lang="ts">
import type { BothSides } from './useSaved'

/** What two tablets changed at once: one of the two is kept. Where earlier states can be seen, a side that was saved is one of them. */
defineProps<{ conflict?: BothSides<{ name: string }>; past?: boolean }>()
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
    <p>Another tablet saved “{{ conflict?.current.document.name }}” while it was changed here. Nothing was overwritten yet. Keep one of the two.</p>
    <p>
      Keep this tablet's, and the other's {{ past ? 'stays among its earlier states' : 'is written over' }}. Take the other's, and what was changed
      here is gone.
    </p>
    <template #footer>
      <div class="sides">
        <el-button @click="$emit('settle', 'theirs')">Take the other tablet's</el-button>
        <el-button class="go" @click="$emit('settle', 'mine')">Keep this tablet's</el-button>
      </div>
    </template>
  </el-dialog>
</template>

<style scoped>
.sides {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s2);
  justify-content: flex-end;
}
.sides .el-button {
  margin: 0;
}
</style>
