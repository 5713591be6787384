<script setup lang="ts">
import Icon from '@/parts/Icon.vue'
import { useBench } from '@/bench/bench'

// Plain values only: the menu stays as it is while figures move.
const props = defineProps<{ id: string; label: string; pinned: boolean; doubt?: boolean }>()
const bench = useBench()

function choose(command: string) {
  if (command === 'pin') bench.togglePin(props.id)
  else if (command === 'is') bench.isIt(props.id)
  else if (command === 'why') bench.why = { line: props.id }
  else bench.swapping = { line: props.id, label: props.label }
}
</script>

<template>
  <el-dropdown trigger="click" placement="bottom-end" @command="choose">
    <el-button class="ghost" :class="{ pinned }" :aria-label="`More on ${label}`">
      <Icon :name="pinned ? 'pin' : 'more'" :size="18" />
    </el-button>
    <template #dropdown>
      <el-dropdown-menu class="row-menu">
        <el-dropdown-item v-if="doubt" command="is"><Icon name="tick" />It is {{ label.toLowerCase() }}</el-dropdown-item>
        <el-dropdown-item command="pin"><Icon name="pin" />{{ pinned ? 'Let it move' : 'Pin' }} <kbd>P</kbd></el-dropdown-item>
        <el-dropdown-item command="why"><Icon name="why" />Why this much?</el-dropdown-item>
        <el-dropdown-item command="swap"><Icon name="swap" />Something else instead</el-dropdown-item>
      </el-dropdown-menu>
    </template>
  </el-dropdown>
</template>

<style scoped>
.el-button {
  color: var(--ink-3);
  width: var(--touch);
  padding: 0;
}
.pinned {
  color: var(--rim);
  background: var(--rim-wash);
}
</style>

<style>
.row-menu .el-dropdown-menu__item {
  gap: 8px;
}
</style>
