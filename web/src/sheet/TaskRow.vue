<script setup lang="ts">
import { computed } from 'vue'
import Icon from '@/parts/Icon.vue'
import { useSheet, type TaskNow } from './sheet'

/** A task in the list: ticked, in hand, or to be tapped. */
const props = defineProps<{ task: TaskNow; hot: boolean }>()
const emit = defineEmits<{ pick: [task: string] }>()
const sheet = useSheet()
const open = computed(() => sheet.stillOpen(props.task))
</script>

<template>
  <li :class="[task.at, { now: hot }]" :aria-current="hot ? 'step' : undefined">
    <component
      :is="open ? 'button' : 'div'"
      :type="open ? 'button' : undefined"
      class="row"
      :data-task="task.id"
      @click="open && emit('pick', task.id)">
      <span class="box"><Icon v-if="task.at === 'done'" name="tick" :size="15" /><i v-else-if="task.at === 'left_out'">–</i></span>
      <span class="name"><slot /><small v-if="task.late && open" class="late">not in yet</small></span>
      <span v-if="$slots.amount" class="q"><slot name="amount" /></span>
    </component>
  </li>
</template>

<style scoped>
.row {
  display: flex;
  align-items: center;
  gap: 7px;
  width: 100%;
  min-height: var(--touch);
  padding: 4px 6px;
  border: 2px solid transparent;
  border-radius: var(--r-ctl);
  background: none;
  text-align: left;
  font-size: 16px;
  line-height: 1.1;
}
button.row {
  cursor: pointer;
}
.box {
  flex: none;
  display: grid;
  place-items: center;
  width: 22px;
  height: 22px;
  border: 2px solid var(--edge);
  border-radius: 7px;
}
.done .box {
  background: var(--leaf);
  border-color: var(--leaf);
  color: var(--enamel);
}
.name {
  flex: 1;
  min-width: 0;
  overflow-wrap: anywhere;
}
.done .name,
.left_out .name {
  color: var(--ink-2);
}
.row :deep(small) {
  display: block;
  color: var(--ink-2);
  font-size: var(--t-mini);
  font-weight: 500;
}
.row .late {
  color: var(--beet);
}
.q {
  flex: none;
  max-width: 46%;
  text-align: right;
  font-weight: 600;
}
.now .row {
  background: var(--yolk);
  border-color: var(--ink);
  color: var(--on-yolk);
  font-weight: 750;
}
.now .row :is(.name, .q),
.now .row :deep(small) {
  color: var(--on-yolk);
}
.now .box {
  border-color: var(--on-yolk);
}
</style>
