<script setup lang="ts">
import { ref } from 'vue'
import { useSidewaysTouch } from './useSidewaysTouch'

/** A knob on a track that its owner draws: dragged sideways, stepped by the keyboard, never moved by a finger that scrolls. */
const props = defineProps<{ value: number; min: number; max: number; step: number; label: string; beyond?: boolean }>()
const emit = defineEmits<{ change: [value: number] }>()
const track = ref<HTMLElement>()
useSidewaysTouch(track, (at) => {
  const steps = Math.round((at * (props.max - props.min)) / props.step)
  emit('change', Math.min(props.max, Number((props.min + steps * props.step).toFixed(6))))
})
</script>

<template>
  <div ref="track" class="track-slider" :class="{ beyond }">
    <el-slider
      :model-value="value"
      :min="min"
      :max="max"
      :step="step"
      :show-tooltip="false"
      :aria-label="label"
      @input="emit('change', $event as number)" />
  </div>
</template>

<style scoped>
.track-slider {
  position: relative;
  touch-action: pan-y;
}
.el-slider {
  --el-slider-main-bg-color: transparent;
  --el-slider-runway-bg-color: transparent;
  --el-slider-height: 8px;
  height: 36px;
}
.el-slider :deep(.el-slider__button) {
  width: 12px;
  height: 28px;
  border-radius: 6px;
  border: 2px solid var(--enamel);
  background: var(--ink);
  box-shadow: var(--sh-knob);
}
.beyond .el-slider :deep(.el-slider__button) {
  background: var(--beet);
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
</style>
