<script setup lang="ts">
import { computed, onMounted, ref, watch } from 'vue'
import { onStep, unbroken } from '@/parts/figures'
import { unitsShown } from '@/parts/settings'
import { useSheet, type TaskNow } from './sheet'
import TaskRow from './TaskRow.vue'
import VesselDrawing from './VesselDrawing.vue'

/** The bowls with what is in them and what is to come, and the steps after that. */
const emit = defineEmits<{ pick: [task: string]; spill: [bowl: string] }>()
const sheet = useSheet()
const state = computed(() => sheet.batch!.state)
/** What the sheet is about: what waits for an answer, else the task in hand. */
const hot = computed(() => state.value.tasks.find((t) => t.id === (state.value.ask?.task ?? sheet.current?.id)))
const list = ref<HTMLElement>()
watch(
  () => hot.value?.id,
  () => list.value?.querySelector('.now')?.scrollIntoView({ block: 'nearest' }),
  { flush: 'post' },
)
onMounted(() => list.value?.querySelector('.now')?.scrollIntoView({ block: 'nearest' }))
const rowsOf = (key: string) => state.value.tasks.filter((t) => t.kind === 'weigh' && t.bowl === key)
const bowls = computed(() => state.value.bowls.map((b) => ({ ...b, rows: rowsOf(b.key) })).filter((b) => b.rows.length))
/** What goes on and takes its time is made before anything is weighed. */
const first = computed(() => state.value.tasks.filter((t) => t.code === 'aside_first'))
const steps = computed(() => state.value.tasks.filter((t) => t.kind !== 'weigh' && t.code !== 'aside_first'))
const layers = (rows: TaskNow[], all: number) =>
  rows.filter((r) => r.in_g > 0 && all > 0).map((r) => ({ colour: r.colour ?? 'var(--raw)', share: r.in_g / all }))
const amount = (t: TaskNow) => {
  if (sheet.isWaiting(t.id)) return 'waits'
  if (t.at === 'left_out') return 'left out'
  if (unitsShown.value === 'cups' && t.at === 'to_come') return unbroken(t.measure) || `${onStep(t.asks_g, t.decimals ?? 0)} g`
  const g = `${onStep(t.at === 'done' ? t.in_g : t.asks_g, t.decimals ?? 0)} g`
  return t.at === 'top_up' ? `+ ${g}` : g
}
const says = (t: TaskNow) => (unitsShown.value === 'cups' && t.in_cups) || t.text || ''
const brief = (t: TaskNow) => {
  const parts = says(t).split(/(?<=[.:])\s/)
  const first = parts.slice(0, t.code?.startsWith('aside') ? 2 : 1).join(' ') // whose step it is, and the step
  return first.length > 64 ? `${first.slice(0, 62)}…` : first
}
</script>

<template>
  <section class="panel bowls" :class="{ cups: unitsShown === 'cups' }" aria-label="In the bowls">
    <header>
      <h2>In the bowls</h2>
      <p class="end" data-weighed>{{ state.weighed }} of {{ state.to_weigh }} {{ unitsShown === 'cups' ? 'measured' : 'weighed' }}</p>
    </header>
    <div ref="list" class="all">
      <div v-if="first.length" class="then first">
        <h3>First</h3>
        <ol>
          <TaskRow v-for="t in first" :key="t.id" :task="t" :hot="t.id === hot?.id" @pick="emit('pick', $event)">{{ brief(t) }}</TaskRow>
        </ol>
      </div>
      <div v-for="b in bowls" :key="b.key" class="bowl" :class="{ here: b.key === hot?.bowl }">
        <button
          type="button"
          class="pot"
          :disabled="!b.in_g"
          :title="b.in_g ? `Something of the ${b.name} is spilt` : undefined"
          @click="emit('spill', b.key)">
          <VesselDrawing :vessel="b.key" :full="b.grams ? b.in_g / b.grams : 0" :layers="layers(b.rows, b.in_g)" :now="b.key === hot?.bowl" />
          <b>{{ b.name }}</b>
          <small>{{ b.in_g ? `${b.in_g.toFixed(0)} g` : 'empty' }}</small>
        </button>
        <ol>
          <TaskRow v-for="t in b.rows" :key="t.id" :task="t" :hot="t.id === hot?.id" @pick="emit('pick', $event)">
            {{ t.label }}<small v-if="t.counted && unitsShown === 'grams'">{{ t.measure }}</small>
            <template #amount>{{ amount(t) }}</template>
          </TaskRow>
        </ol>
      </div>
      <div class="then">
        <h3>Then</h3>
        <ol>
          <TaskRow v-for="t in steps" :key="t.id" :task="t" :hot="t.id === hot?.id" @pick="emit('pick', $event)">{{ brief(t) }}</TaskRow>
        </ol>
      </div>
    </div>
  </section>
</template>

<style scoped>
.bowls {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
}
.all {
  overflow-y: auto;
  padding: var(--s1) var(--s2) var(--s3);
}
.bowl {
  display: grid;
  grid-template-columns: 90px minmax(0, 1fr);
  gap: var(--s2);
  align-items: center;
  padding: var(--s2) 0;
  border-bottom: 1.5px solid var(--hair);
}
.pot {
  display: grid;
  justify-items: center;
  border: 0;
  border-radius: var(--r-ctl);
  background: none;
  padding: 2px 0;
  min-height: var(--touch);
  line-height: 1.15;
  font-size: var(--t-mini);
  cursor: pointer;
}
.pot:disabled {
  cursor: default;
  color: inherit;
}
.pot b {
  font-size: 14px;
  text-align: center;
}
.pot b::first-letter {
  text-transform: uppercase;
}
small {
  display: block;
  color: var(--ink-2);
  font-size: var(--t-mini);
  font-weight: 500;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
/* Cups and spoons take a line of their own. */
.cups .bowl :deep(.row) {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
}
.cups .bowl :deep(.box) {
  grid-row: 1 / 3;
}
.cups .bowl :deep(.q) {
  grid-column: 2;
  max-width: none;
  text-align: left;
}
.then {
  padding-top: var(--s3);
}
.first {
  padding: var(--s1) 0 var(--s2);
  border-bottom: 1.5px solid var(--hair);
}
h3 {
  padding: 0 var(--s2);
}
</style>
