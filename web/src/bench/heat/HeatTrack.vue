<script setup lang="ts">
import { computed, ref } from 'vue'
import { useSidewaysTouch } from '@/parts/useSidewaysTouch'

const props = defineProps<{ value: number; low: number; high: number; window?: number[]; windowText?: string }>()
const emit = defineEmits<{ change: [c: number] }>()
const share = (c: number) => `${(100 * Math.min(Math.max(c - props.low, 0), props.high - props.low)) / (props.high - props.low)}%`
const box = computed(() => props.window && { left: share(props.window[0]!), right: `calc(100% - ${share(props.window[1]!)})` })
const track = ref<HTMLElement>()
const set = (c: number) => Math.round(c) !== Math.round(props.value) && emit('change', Math.round(c))
useSidewaysTouch(track, (at) => set(props.low + at * (props.high - props.low)))
</script>

<template>
  <div ref="track" class="heat-track">
    <i v-if="box" class="window" :style="box" />
    <el-slider
      :model-value="Math.min(high, Math.max(low, value))"
      :min="low"
      :max="high"
      :step="1"
      :show-tooltip="false"
      aria-label="Heat of the plate in °C"
      @input="set($event as number)" />
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
  touch-action: pan-y;
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
.el-slider {
  --el-slider-main-bg-color: transparent;
  --el-slider-runway-bg-color: transparent;
  --el-slider-height: 8px;
  height: 36px;
  position: relative;
}
.el-slider :deep(.el-slider__button) {
  width: 12px;
  height: 30px;
  border-radius: 6px;
  border: 2px solid var(--enamel);
  background: var(--ink);
  box-shadow: var(--sh-knob);
}
.el-slider :deep(.el-slider__button-wrapper) {
  width: 44px;
  height: 44px;
  top: -18px;
}
.el-slider :deep(.el-slider__button-wrapper:focus-visible) {
  box-shadow: none;
}
.el-slider :deep(.el-slider__button-wrapper:focus-visible .el-slider__button) {
  box-shadow: var(--focus);
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
