<script setup lang="ts">
import { ref, watch } from 'vue'
import { useKitchen } from '@/kitchen/kitchen'
import { useBench } from './bench'
import SaveChip from '@/parts/SaveChip.vue'

const bench = useBench()
const kitchen = useKitchen()
const name = ref('')
const trouble = ref('')
watch(
  () => bench.doc?.name,
  (v) => (name.value = v ?? ''),
  { immediate: true },
)

function keep() {
  trouble.value = name.value.trim() ? '' : 'Give it a name.'
  if (!trouble.value && name.value !== bench.doc?.name) bench.rename(name.value.trim())
}
function giveUp() {
  name.value = bench.doc?.name ?? ''
  trouble.value = ''
}
</script>

<template>
  <div class="title">
    <p class="from">
      <span :title="bench.doc?.base.name"
        ><template v-if="kitchen.own">{{ kitchen.own.name }} · </template>on {{ bench.doc?.base.name }}</span
      ><SaveChip :state="bench.saveState" :trouble="bench.saveTrouble" />
    </p>
    <h1 class="vh">{{ bench.doc?.name }}</h1>
    <input
      v-model="name"
      maxlength="200"
      aria-label="Name of the variation"
      :aria-invalid="!!trouble"
      @change="keep"
      @keydown.enter="keep"
      @keydown.esc="giveUp" />
    <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
  </div>
</template>

<style scoped>
.title {
  min-width: 0;
  flex: 1 1 240px;
  position: relative;
}
.from {
  display: flex;
  align-items: center;
  gap: var(--s2);
  font-size: var(--t-mini);
  color: var(--ink-2);
  padding-left: 6px;
}
.from span:first-child {
  min-width: 0;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
input {
  width: 100%;
  min-height: 34px;
  border: 1.5px solid transparent;
  border-radius: var(--s2);
  background: none;
  font-size: var(--t-title);
  font-weight: 700;
  padding: 0 5px;
  text-overflow: ellipsis;
}
input:hover {
  border-color: var(--edge);
}
input:focus {
  outline: none;
  border-color: var(--rim);
  background: var(--enamel);
  box-shadow: var(--focus);
}
.trouble {
  position: absolute;
  left: 6px;
  top: 100%;
  color: var(--beet);
  font-size: var(--t-mini);
}
</style>
