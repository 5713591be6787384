<script setup lang="ts">
import { onBeforeUnmount } from 'vue'
import Icon from './Icon.vue'
import type { IconName } from './icons'

/** A button that steps once, and goes on while it is held. */
const props = defineProps<{ label: string; icon: IconName; disabled?: boolean }>()
const emit = defineEmits<{ step: [] }>()
const waitsMs = 450
const everyMs = 110
let timer: ReturnType<typeof setTimeout> | undefined
let held = false

function press(e: PointerEvent) {
  if (e.button) return
  held = false
  clearTimeout(timer)
  timer = setTimeout(again, waitsMs)
}
function again() {
  if (props.disabled) return letGo()
  held = true
  emit('step')
  timer = setTimeout(again, everyMs)
}
function letGo() {
  clearTimeout(timer)
  timer = undefined
}
/** The click that ends a long press is not one more step. */
function click() {
  if (!held) emit('step')
  held = false
}
onBeforeUnmount(letGo)
</script>

<template>
  <el-button
    class="step"
    :aria-label="label"
    :disabled="disabled"
    @pointerdown="press"
    @pointerup="letGo"
    @pointerleave="letGo"
    @pointercancel="letGo"
    @contextmenu.prevent
    @click.stop="click"
    ><Icon :name="icon"
  /></el-button>
</template>

<style scoped>
.step {
  width: var(--touch);
  padding: 0;
  flex: none;
  touch-action: manipulation;
  user-select: none;
}
</style>
