<script setup lang="ts">
import type { Schemas } from '@/api/client'
import { places } from '@/bench/choices'
import Icon from './Icon.vue'

/** What stands beside the batter: on top, in the pan, to serve. */
defineProps<{ parts: Schemas['Part'][] }>()
const emit = defineEmits<{ off: [index: number] }>()
</script>

<template>
  <div class="beside">
    <h3>Not in the bowl</h3>
    <ul>
      <li v-for="(p, i) in parts" :key="i">
        <small class="chip rim">{{ places[p.kind] }}</small><span>{{ p.text }}</span
        ><el-button class="ghost" :aria-label="`Take off ${p.text}`" @click="emit('off', i)"><Icon name="bin" :size="18" /></el-button>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.beside h3 {
  font-size: var(--t-mini);
  color: var(--ink-2);
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: flex;
  align-items: center;
  gap: var(--s2);
}
span {
  flex: 1;
  min-width: 0;
  overflow-wrap: anywhere;
}
</style>
