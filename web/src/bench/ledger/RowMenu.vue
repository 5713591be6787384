<script setup lang="ts">
import { ref } from 'vue'
import { say } from '@/parts/say'
import { said, type Schemas } from '@/api/client'
import Icon from '@/parts/Icon.vue'
import { onStep } from '@/parts/figures'
import { useBench } from '@/bench/bench'

// Plain values only: the menu stays as it is while figures move.
const props = defineProps<{ id: string; label: string; pinned: boolean }>()
const bench = useBench()
const swaps = ref<Schemas['Swap'][]>()

/** The program says what can stand in for a line; most have nothing. */
async function opened(open: boolean) {
  if (!open || !bench.doc) return
  swaps.value = undefined
  try {
    swaps.value = await bench.swapsFor(props.id)
  } catch (e) {
    say(said(e))
    swaps.value = []
  }
}

function choose(command: string) {
  if (command === 'pin') bench.togglePin(props.id)
  else if (command === 'why') bench.why = { line: props.id }
  else {
    const s = swaps.value?.[Number(command)]
    if (s) bench.swap(props.id, s.label)
  }
}
const amounts = (s: Schemas['Swap']) => s.lines.map((l) => `${onStep(l.amount, 0)} g`).join(' + ')
</script>

<template>
  <el-dropdown trigger="click" @command="choose" @visible-change="opened">
    <el-button class="ghost" :class="{ pinned }" :aria-label="`More on ${label}`">
      <Icon :name="pinned ? 'pin' : 'more'" :size="18" />
    </el-button>
    <template #dropdown>
      <el-dropdown-menu class="row-menu">
        <el-dropdown-item command="pin"><Icon name="pin" :size="18" />{{ pinned ? 'Unpin' : 'Pin' }} <kbd>P</kbd></el-dropdown-item>
        <el-dropdown-item command="why"><Icon name="why" :size="18" />Why this much?</el-dropdown-item>
        <el-dropdown-item v-for="(s, i) in swaps" :key="s.label" :command="String(i)" :divided="i === 0">
          <Icon name="swap" :size="18" /><span
            >{{ s.label }} instead<small>{{ amounts(s) }} · {{ s.says }}</small></span
          >
        </el-dropdown-item>
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
.row-menu small {
  display: block;
  color: var(--ink-2);
  font-size: var(--t-mini);
  line-height: 1.2;
  padding-bottom: 4px;
}
</style>
