<script setup lang="ts">
import { computed } from 'vue'
import { useSheet, type TaskNow } from './sheet'

/** The ingredient in hand, and what was forgotten on the way to it. */
const props = defineProps<{ task: TaskNow }>()
const sheet = useSheet()
const behind = computed(() => (props.task.behind ?? []).flatMap((id) => sheet.tasks.find((t) => t.id === id && !sheet.isWaiting(id)) ?? []))
</script>

<template>
  <header class="task-head">
    <h2>{{ task.label }}</h2>
    <p><slot /></p>
  </header>
  <p v-if="task.late" class="band well" role="status">
    <i class="sign high" /><span><b>Not in yet, and it is mixed already.</b> {{ task.late }} {{ task.leave_out }}</span>
  </p>
  <p v-else-if="behind.length" class="band well" role="status" data-behind>
    <i class="sign high" /><span><b>Not in its bowl yet:</b> {{ behind.map((t) => t.label).join(', ') }}</span>
    <el-button @click="sheet.picked = behind[0]!.id">{{ behind[0]!.label }} first</el-button>
  </p>
</template>

<style scoped>
.task-head {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0 14px;
}
h2 {
  font-size: 42px;
  font-weight: 800;
  line-height: 1;
  overflow-wrap: anywhere;
}
.task-head p {
  font-size: var(--t-title);
  color: var(--ink-2);
}
.task-head :deep(b) {
  color: var(--ink);
}
.band {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s3);
  align-items: center;
  padding: var(--s3) var(--s4);
  font-size: var(--t-lead);
  background: var(--beet-wash);
}
.band span {
  flex: 1 1 200px;
}
@media (max-width: 560px) {
  h2 {
    font-size: 34px;
  }
}
</style>
