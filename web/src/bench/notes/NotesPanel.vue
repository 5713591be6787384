<script setup lang="ts">
import { computed } from 'vue'
import type { Worksheet } from '@/api/client'
import { useBench } from '@/bench/bench'
import { unbroken } from '@/parts/figures'
import SidePanel from '@/parts/SidePanel.vue'

const props = defineProps<{ sheet: Worksheet }>()
const emit = defineEmits<{ close: [] }>()
const bench = useBench()
const signs = { warning: 'high', advice: 'ring', known: 'ring' }
const toMind = computed(() => props.sheet.notes.filter((n) => n.kind !== 'known'))
const known = computed(() => props.sheet.notes.filter((n) => n.kind === 'known'))
</script>

<template>
  <SidePanel class="notes" title="Notes on this bowl" @close="emit('close')">
    <p v-if="!sheet.notes.length" class="muted">Nothing to say about it.</p>
    <ul v-if="toMind.length" aria-label="What to know">
      <li v-for="n in toMind" :key="n.code + n.line" :data-note="n.code" :class="n.kind">
        <i class="sign" :class="signs[n.kind]" /><span
          >{{ unbroken(n.text) }} <el-button v-if="n.code === 'soda_follows'" @click="bench.letGo('tang')">Let the tang go</el-button>
          <el-button v-if="n.code === 'swapped'" @click="bench.ownLines">Back to the base’s own lines</el-button></span
        >
      </li>
    </ul>
    <details v-if="known.length" :open="!toMind.length">
      <summary>What is known of it</summary>
      <p class="muted">Somebody cooks it so and likes it. This is how it differs from what is usual.</p>
      <ul aria-label="What is known of it">
        <li v-for="n in known" :key="n.code + n.line" :data-note="n.code">
          <i class="sign ring" /><span>{{ unbroken(n.text) }}</span>
        </li>
      </ul>
    </details>
  </SidePanel>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: flex;
  gap: var(--s3);
  align-items: baseline;
  padding: 7px 0;
  border-top: 1px solid var(--hair);
  line-height: 1.3;
}
li:first-child {
  border-top: 0;
}
.warning {
  font-weight: 600;
}
summary {
  min-height: var(--touch);
  display: flex;
  align-items: center;
  font-weight: 650;
  cursor: pointer;
}
.sign {
  width: 11px;
  height: 11px;
}
</style>
