<script setup lang="ts">
import { ref, watch } from 'vue'
import { said, type Schemas } from '@/api/client'
import { useBench } from '@/bench/bench'
import { onStep } from '@/parts/figures'
import SidePanel from '@/parts/SidePanel.vue'

/** What can stand in for a line of the base, with what stays and what it costs. */
const props = defineProps<{ line: string; label: string }>()
const emit = defineEmits<{ close: [] }>()
const bench = useBench()
const swaps = ref<Schemas['Swap'][]>()
const trouble = ref('')
watch(
  () => props.line,
  async (line) => {
    swaps.value = undefined
    try {
      swaps.value = await bench.swapsFor(line)
      trouble.value = ''
    } catch (e) {
      trouble.value = said(e)
    }
  },
  { immediate: true },
)
function take(s: Schemas['Swap']) {
  bench.swap(props.line, s.label)
  emit('close')
}
const amounts = (s: Schemas['Swap']) => s.lines.map((l) => `${onStep(l.amount, 0)} g`).join(' + ')
</script>

<template>
  <SidePanel class="swap-panel" :title="`Instead of ${label}`" @close="emit('close')">
    <p v-if="trouble" class="trouble" role="alert"><i class="sign high" />{{ trouble }}</p>
    <p v-else-if="!swaps" class="muted" role="status">Working it out</p>
    <p v-else-if="!swaps.length" class="muted">Nothing is known that could stand in for it.</p>
    <ul v-else class="rows">
      <li v-for="s in swaps" :key="s.label" class="well" :data-swap="s.label">
        <span class="what"
          ><b
            >{{ s.label }}<template v-if="!s.back">, {{ amounts(s) }}</template></b
          ><small>{{ s.says }}</small></span
        >
        <el-button @click="take(s)">{{ s.back ? 'Go back' : 'Take it' }}</el-button>
      </li>
    </ul>
  </SidePanel>
</template>

<style scoped>
.trouble {
  color: var(--beet);
}
</style>
