<script setup lang="ts">
import { computed } from 'vue'
import type { SaveState } from './useSaved'
import Icon from './Icon.vue'

/** Whether what is on the screen is kept, where, and if not why. */
const props = defineProps<{ state: SaveState; trouble?: string }>()
const words: Record<SaveState, string> = {
  saved: 'saved',
  changed: 'saving soon',
  saving: 'saving',
  offline: 'waits on this tablet',
  refused: 'not saved',
  conflict: 'changed twice',
}
const tone = computed(() => (props.state === 'saved' ? 'leaf' : props.state === 'changed' || props.state === 'saving' ? '' : 'beet'))
</script>

<template>
  <span class="chip" :class="tone" role="status" :data-save="state" :title="trouble">
    <Icon v-if="state === 'saved'" name="tick" :size="14" />
    <Icon v-else-if="state === 'offline'" name="offline" :size="14" />
    <i v-else-if="tone === 'beet'" class="sign high" />
    {{ words[state] }}
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
