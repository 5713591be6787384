<script setup lang="ts">
import { onBeforeUnmount, onMounted, ref } from 'vue'
import Icon from './Icon.vue'

/** A panel that stands in the place of others while it is open: it takes the focus and gives it back. */
defineProps<{ title: string }>()
const emit = defineEmits<{ close: [] }>()
const heading = ref<HTMLElement>()
let opener: Element | null
onMounted(() => {
  opener = document.activeElement
  heading.value?.focus({ preventScroll: true })
  heading.value?.scrollIntoView?.({ block: 'nearest' })
})
onBeforeUnmount(() => {
  const back = opener
  setTimeout(() => back instanceof HTMLElement && back.isConnected && back.focus({ preventScroll: true }))
})
</script>

<template>
  <section class="panel side" :aria-label="title" @keydown.esc.stop="emit('close')">
    <div class="head">
      <h2 ref="heading" tabindex="-1">{{ title }}</h2>
      <el-button class="ghost" :aria-label="`Close ${title}`" title="Back (Esc)" @click="emit('close')"><Icon name="close" /></el-button>
    </div>
    <div class="inside"><slot /></div>
  </section>
</template>

<style scoped>
.side {
  display: flex;
  flex-direction: column;
}
.head {
  display: flex;
  align-items: center;
  gap: var(--s2);
  padding: var(--s1) var(--s2) 0 var(--s4);
}
h2 {
  flex: 1;
  min-width: 0;
  font-size: var(--t-title);
  overflow-wrap: anywhere;
}
h2:focus-visible {
  box-shadow: none;
}
.head .el-button {
  width: var(--touch);
  padding: 0;
  flex: none;
}
.inside {
  overflow: hidden auto;
  padding: 0 var(--s4) var(--s3);
  min-height: 0;
}
</style>
