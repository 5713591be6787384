<script setup lang="ts">
import { computed } from 'vue'
import TrackSlider from '@/parts/TrackSlider.vue'

const props = defineProps<{ value: number; low: number; high: number; window?: number[]; windowText?: string }>()
const emit = defineEmits<{ change: [c: number] }>()
const share = (c: number) => `${(100 * Math.min(Math.max(c - props.low, 0), props.high - props.low)) / (props.high - props.low)}%`
const box = computed(() => props.window && { left: share(props.window[0]!), right: `calc(100% - ${share(props.window[1]!)})` })
</script>

<template>
  <div class="heat-track">
    <i v-if="box" class="window" :style="box" />
    <TrackSlider
      :value="Math.min(high, Math.max(low, value))"
      :min="low"
      :max="high"
      :step="1"
      label="Heat of the plate in °C"
      @change="Math.round(value) !== $event && emit('change', $event)" />
    <p class="ends">
      <span>{{ low }}</span><b v-if="windowText">{{ windowText }}</b
      ><span>{{ high }}</span>
    </p>
  </div>
</template>

<style scoped>
.heat-track {
  position: relative;
  padding: 0 2px;
}
.heat-track::before {
  content: '';
  position: absolute;
  inset: 14px 2px auto;
  height: 8px;
  border-radius: var(--s1);
  background: var(--well-2);
}
.window {
  position: absolute;
  top: 9px;
  height: 18px;
  min-width: 6px;
  border: 2px solid var(--leaf);
  background: var(--leaf-wash);
  border-radius: 3px;
}
.ends {
  display: flex;
  justify-content: space-between;
  font-size: var(--t-mini);
  color: var(--ink-2);
}
.ends b {
  color: var(--leaf);
}
</style>
