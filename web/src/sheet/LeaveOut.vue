<script setup lang="ts">
import { useSheet, type TaskNow } from './sheet'

/** What was forgotten, or is asked on top, may also stay out. */
const props = defineProps<{ task: TaskNow }>()
const sheet = useSheet()
const leave = () => sheet.tell({ kind: 'skipped', task: props.task.id }, `${props.task.label}, left out`)
</script>

<template>
  <el-button v-if="task.late || task.at === 'top_up'" class="big" data-leave @click="leave">{{
    task.at === 'top_up' ? 'Leave it as it is' : 'Leave it out'
  }}</el-button>
</template>
