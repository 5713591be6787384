<script setup lang="ts">
import { useIntervalFn } from '@vueuse/core'
import { computed, ref } from 'vue'
import { say } from '@/parts/say'
import { useBench } from '@/bench/bench'
import { useKitchen } from '@/kitchen/kitchen'
import { offerUndo } from '@/parts/undo'
import { type Cook } from './heat'
import { clock } from '@/parts/clock'

const props = defineProps<{ cook: Cook }>()
const bench = useBench()
const kitchen = useKitchen()
const iron = computed(() => kitchen.own?.irons?.find((i) => i.id === props.cook.plate_id))
const from = ref<number>()
const now = ref(0)
const run = useIntervalFn(() => (now.value = Date.now()), 250, { immediate: false })
const passed = computed(() => (from.value === undefined ? 0 : Math.round((now.value - from.value) / 1000)))

function close() {
  from.value = now.value = Date.now()
  run.resume()
}
function stop() {
  run.pause()
  from.value = undefined
}
async function keep(light: boolean | undefined, closed_s: number | undefined) {
  const own = kitchen.own
  const kept = own && (await kitchen.save({ ...own, irons: own.irons?.map((i) => (i.id === props.cook.plate_id ? { ...i, light, closed_s } : i)) }))
  if (kept) await bench.work()
  else say(kitchen.trouble ?? 'The time could not be saved. Look at the iron in the Kitchen.')
  return kept
}
/** One tap keeps the time of the iron's own light. */
async function light() {
  const before = iron.value
  const seconds = passed.value
  stop()
  if (before && (await keep(true, seconds)))
    offerUndo(`${before.name}: its light comes after ${clock(seconds)}.`, () => keep(before.light, before.closed_s))
}
</script>

<template>
  <div v-if="iron" class="light">
    <template v-if="from === undefined">
      <el-button @click="close">Lid closed: start</el-button>
      <small v-if="cook.closed_s">Its own light came after {{ clock(cook.closed_s) }}.</small>
      <small v-else>Has it a light or a tone? Start here, and tap when it comes.</small>
    </template>
    <template v-else>
      <el-button class="go" :disabled="passed < (kitchen.form?.limits.closed_s?.low ?? Infinity)" @click="light"
        >The light came, save {{ clock(passed) }}</el-button
      >
      <el-button @click="stop">Stop</el-button>
    </template>
  </div>
</template>

<style scoped>
.light {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s2);
}
.light .el-button {
  margin: 0;
}
small {
  color: var(--ink-2);
  font-size: var(--t-mini);
}
</style>
