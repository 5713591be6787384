<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { onStep, unbroken } from '@/parts/figures'
import FillDrawing from './FillDrawing.vue'
import LeaveOut from './LeaveOut.vue'
import SheetCard from './SheetCard.vue'
import TaskHead from './TaskHead.vue'
import TaskWhy from './TaskWhy.vue'
import { useSheet, type TaskNow } from './sheet'
import { ordinal } from './words'

/** One ingredient by cups and spoons: what is in, what is to fill now, what is to come. */
const props = defineProps<{ task: TaskNow }>()
const emit = defineEmits<{ type: [] }>()
const sheet = useSheet()
const all = computed(() => (props.task.fills ?? []).flatMap((f) => Array.from({ length: f.times }, () => f)))
const top = computed(() => props.task.at === 'top_up')
const n = computed(() => (top.value ? 0 : props.task.fills_in))
const now = computed(() => all.value[n.value])
/** Which one of its like is filled now: "2 of 3 cups". */
const like = (f: Schemas['Fill'], g: Schemas['Fill']) => f.vessel === g.vessel && f.size === g.size && !!f.out === !!g.out
const run = computed(() => {
  const f = now.value
  if (!f) return { at: 0, of: 0 }
  let first = n.value
  while (first > 0 && like(all.value[first - 1]!, f)) first--
  let end = n.value
  while (end < all.value.length && like(all.value[end]!, f)) end++
  return { at: n.value - first + 1, of: end - first }
})
const nameOf = (f: Schemas['Fill'], many = false) => {
  if (f.vessel === 'each') return many ? 'eggs' : 'egg'
  if (f.vessel === 'pinch') return 'pinch'
  const unit = f.vessel === 'cup' && many ? 'cups' : f.vessel
  return f.size === '1' ? unit : `${f.size} ${unit}`
}
const groups = computed(() => {
  const out: { fill: Schemas['Fill']; from: number; count: number }[] = []
  all.value.forEach((f, i) => {
    const last = out.at(-1)
    if (last && like(last.fill, f)) last.count++
    else out.push({ fill: f, from: i, count: 1 })
  })
  return out
})
const stateOf = (i: number) => (i < n.value ? 'in' : i === n.value ? 'now' : 'come')

function filled(fills: number, extra = 0, heaped = false) {
  const what = `${props.task.label}, ${fills} of ${all.value.length}`
  if (top.value)
    return sheet.tell(
      { kind: 'weighed', task: props.task.id, grams: props.task.asks_g, adds: true },
      `${props.task.label}, ${unbroken(props.task.measure)} more`,
    )
  return sheet.tell({ kind: 'filled', task: props.task.id, fills, ...(extra ? { extra } : {}), ...(heaped ? { heaped } : {}) }, what)
}
/** A whole top-up is one tap; else one cup or spoon at a time. */
const enter = () => now.value && filled(n.value + 1)
const button = computed(() => {
  const f = now.value
  if (!f) return ''
  if (top.value) return `${unbroken(props.task.measure)} more is in`
  if (f.out) return `${nameOf(f)} is out again`
  return run.value.of > 1 ? `${ordinal(run.value.at)} ${nameOf(f)} is in` : `${f.size === '1' && f.vessel !== 'each' ? '1 ' : ''}${nameOf(f)} is in`
})
defineExpose({ enter })
</script>

<template>
  <SheetCard class="cups-in" :data-fills="`${n} of ${all.length}`" :back="n > 0 ? 'Take one back' : undefined" @back="filled(n - 1)">
    <TaskHead :task="task">
      <template v-if="top">another </template><b>{{ unbroken(task.measure) }}</b
      ><template v-if="!task.counted">, level</template>
    </TaskHead>
    <p v-if="now && !top" class="count" role="status">
      <template v-if="run.of > 1"
        ><b>{{ run.at }}</b> <span>of {{ run.of }} {{ nameOf(now, true) }}</span></template
      >
      <b v-else class="one"
        >{{ now.size === '1' ? '1' : now.size }} <span>{{ now.vessel === 'each' ? 'egg' : now.vessel }}</span></b
      >
    </p>
    <div class="groups">
      <section v-for="g in groups" :key="g.from">
        <div class="drawn">
          <FillDrawing v-for="i in Math.min(g.count, 8)" :key="i" :fill="g.fill" :state="stateOf(g.from + i - 1)" :colour="task.colour" bare />
        </div>
        <p>
          <b>{{ g.fill.out ? 'then take out ' : '' }}{{ g.fill.size === '1' && g.fill.vessel !== 'each' ? '1 ' : '' }}{{ nameOf(g.fill) }}</b>
          <span v-if="g.count > 1">&nbsp;{{ g.count }} times</span>
        </p>
      </section>
    </div>
    <TaskWhy v-if="task.why">{{ task.why }} {{ onStep(task.asks_g, task.decimals ?? 0) }} g in all.</TaskWhy>
    <template #acts>
      <el-button v-if="n > 0 && !task.counted && !top" class="big" @click="filled(n, (task.extra ?? 0) + 1)">One too many</el-button>
      <el-button v-if="n > 0 && !task.counted && !top" class="big" @click="filled(n, 0, true)">It was heaped</el-button>
      <el-button class="big" @click="emit('type')">By weight <kbd>T</kbd></el-button>
      <LeaveOut :task="task" />
      <el-button v-if="now" class="big go next" @click="enter">{{ button }} <kbd>Enter</kbd></el-button>
    </template>
  </SheetCard>
</template>

<style scoped>
.count {
  display: flex;
  align-items: baseline;
  gap: var(--s3);
  font-size: 40px;
  font-weight: 750;
}
.count b {
  font-size: clamp(96px, 12vw, 150px);
  font-weight: 800;
  line-height: 0.86;
}
.one span {
  font-size: 40px;
}
.groups {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s4) var(--s6);
  align-items: end;
}
.drawn {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s2) var(--s3);
  align-items: end;
}
.groups p {
  font-size: 20px;
  color: var(--ink-2);
  padding-top: 4px;
}
.groups p b {
  color: var(--ink);
}
</style>
