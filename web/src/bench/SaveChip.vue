<script setup lang="ts">
import { computed } from 'vue'
import Icon from '@/parts/Icon.vue'
import { useBench, type SaveState } from './bench'

const bench = useBench()
const words: Record<SaveState, string> = {
  saved: 'saved',
  changed: 'saving soon',
  saving: 'saving',
  offline: 'offline, safe on this tablet',
  refused: 'not saved',
  conflict: 'changed twice',
}
const tone = computed(() => (bench.saveState === 'saved' ? 'leaf' : bench.saveState === 'changed' || bench.saveState === 'saving' ? '' : 'beet'))
</script>

<template>
  <span class="chip" :class="tone" role="status" :data-save="bench.saveState" :title="bench.saveTrouble">
    <Icon v-if="bench.saveState === 'saved'" name="tick" :size="14" />
    <Icon v-else-if="bench.saveState === 'offline'" name="offline" :size="14" />
    <i v-else-if="tone === 'beet'" class="sign high" />
    {{ words[bench.saveState] }}
  </span>
</template>

<style scoped>
.chip {
  flex: none;
  min-height: 20px;
  line-height: 1;
}
.chip.leaf {
  background: none;
  padding: 0;
}
</style>
