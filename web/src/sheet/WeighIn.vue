<script setup lang="ts">
import { computed, ref, toRef, watch } from 'vue'
import Icon from '@/parts/Icon.vue'
import { onStep, unbroken } from '@/parts/figures'
import LeaveOut from './LeaveOut.vue'
import SheetCard from './SheetCard.vue'
import TaskHead from './TaskHead.vue'
import TaskWhy from './TaskWhy.vue'
import { useSheet, type TaskNow } from './sheet'
import { useWeighIn } from './useWeighIn'
import WeighBars from './WeighBars.vue'

/** One ingredient on the scale, in large figures. */
const props = defineProps<{ task: TaskNow }>()
const emit = defineEmits<{ type: []; sound: ['right' | 'over'] }>()
const sheet = useSheet()
const state = computed(() => sheet.batch!.state)
/** To taste, out of its jar: the jar stands on the scale, and what it loses went in. */
const fromJar = ref(false)
const jar = computed(() => fromJar.value && !!props.task.dosed)
watch(
  () => props.task.id,
  () => (fromJar.value = false),
)
const w = useWeighIn(
  computed(() => sheet.id),
  toRef(props, 'task'),
  computed(() => state.value.bowl_from_g),
  computed(() => true),
  jar,
)
const { scale, none, live, taken, phase, grams, off, steady, where } = w
const decimals = computed(() => props.task.decimals ?? 0)
const say = (g: number) => onStep(Number(g.toFixed(decimals.value)) + 0, decimals.value)
const bowl = computed(() => state.value.bowls.find((b) => b.key === props.task.bowl)?.name ?? 'bowl')
const toGo = computed(() => props.task.asks_g - (grams.value ?? 0))
const top = computed(() => props.task.at === 'top_up')
const says = computed(() => {
  if (none.value) return 'No scale is connected: type the weight in.'
  if (taken.value) return `The scale is with ${taken.value}.`
  if (!scale.value) return 'Looking for the scale'
  if (scale.value.over) return 'More on it than it can weigh. Take something off.'
  if (!live.value) return `No reading for ${scale.value.age_s?.toFixed(0) ?? '–'} s: ${scale.value.says}.`
  if (phase.value === 'bowl' && jar.value) return 'Put its jar on the scale. It zeroes by itself.'
  if (jar.value) return steady.value ? 'What the jar lost: as much as tastes right' : 'settling'
  if (phase.value === 'bowl') return `Put the ${bowl.value} on the scale. It zeroes by itself.`
  if (off.value) return 'The bowl is off the scale. Put it back, or zero with what is on it.'
  return steady.value ? 'steady' : 'settling'
})
const sign = computed(() => (live.value && steady.value && !off.value ? 'in_band' : live.value && !off.value ? 'ring' : 'high'))
const quiet = computed(() => ['steady', 'settling'].includes(says.value))

const ready = computed(() => phase.value === 'pour' && steady.value && !off.value && !taken.value && grams.value !== undefined)
async function weighed() {
  if (!ready.value || (grams.value ?? 0) < 0) return
  const g = Number(grams.value!.toFixed(3))
  await sheet.tell(
    { kind: 'weighed', task: props.task.id, grams: g, ...(top.value ? { adds: true } : {}), ...(jar.value ? { taste: true } : {}) },
    `${props.task.label}, ${say(g)} g`,
  )
}
function enter() {
  if (phase.value === 'bowl' && live.value) void w.zero()
  else if (jar.value) void weighed()
  else if (where.value === 'right' || where.value === 'high') void weighed()
}
watch(where, (is) => {
  if (is === 'right') emit('sound', 'right')
  if (is === 'high') emit('sound', 'over')
})
const nextLabel = computed(() => {
  const n = sheet.next
  return n?.kind === 'weigh' ? `Next: ${n.label?.toLowerCase()}` : 'All weighed: on'
})
defineExpose({ enter, zero: () => live.value && void w.zero() })
</script>

<template>
  <SheetCard class="weigh-in" :data-phase="phase" :data-where="where">
    <TaskHead :task="task">
      <template v-if="top"
        >another <b>{{ say(task.asks_g) }} g</b></template
      >
      <template v-else-if="task.spooning"
        >down to <b>{{ say(task.asks_g) }} g</b></template
      >
      <template v-else-if="task.counted"
        ><b>{{ task.measure }}</b
        >, about {{ say(task.asks_g) }} g</template
      >
      <template v-else
        >to <b>{{ say(task.asks_g) }} g</b><template v-if="task.measure">, or {{ unbroken(task.measure) }}</template></template
      >
    </TaskHead>
    <p class="says" :class="{ quiet }" role="status" data-says>
      <i class="sign" :class="sign" /><span>{{ says }}</span>
    </p>
    <div class="figures">
      <output class="live" :class="{ hollow: grams !== undefined && (!live || off), none: grams === undefined }" :data-grams="grams"
        >{{ grams === undefined ? '–' : say(grams) }}<small>g</small></output
      >
      <div class="to-go" :class="jar ? undefined : where">
        <template v-if="jar"
          ><b>{{ say(task.asks_g) }}<small>g</small></b
          ><span>planned</span></template
        >
        <template v-else-if="where === 'right'"><Icon name="tick" :size="64" /><span>stop</span></template>
        <template v-else-if="where === 'high'"
          ><b>{{ say(-toGo) }}<small>g</small></b
          ><span>too much</span></template
        >
        <template v-else
          ><b>{{ say(toGo) }}<small>g</small></b
          ><span>to go</span></template
        >
      </div>
    </div>
    <WeighBars
      :grams="Math.max(0, grams ?? 0)"
      :asks="task.asks_g"
      :low="task.low_g"
      :high="task.high_g"
      :step="task.step_g ?? 1"
      :decimals="decimals"
      :colour="task.colour ?? 'var(--water-fill)'" />
    <TaskWhy v-if="task.why">{{ task.why }}</TaskWhy>
    <template #acts>
      <el-button v-if="taken" class="big" @click="w.lease(true)">Take the scale here</el-button>
      <el-button v-else class="big" :disabled="!live" @click="w.zero()">Zero <kbd>0</kbd></el-button>
      <el-button class="big" @click="emit('type')">Type it in <kbd>T</kbd></el-button>
      <LeaveOut :task="task" />
      <el-button v-if="task.dosed && !top && !task.spooning" class="big" :aria-pressed="fromJar" @click="fromJar = !fromJar">{{
        fromJar ? 'By the plan' : 'To taste, from the jar'
      }}</el-button>
      <el-button v-if="jar && phase === 'pour'" class="big go next" :disabled="!ready || (grams ?? 0) <= 0" @click="weighed"
        >{{ say(grams ?? 0) }} g went in <kbd>Enter</kbd></el-button
      >
      <el-button v-else-if="phase === 'bowl' && live && !taken" class="big go next" @click="enter">It is on: zero <kbd>Enter</kbd></el-button>
      <template v-else-if="ready && where === 'low' && (grams ?? 0) > 0 && !task.spooning">
        <el-button class="big next" @click="weighed">That is all there is</el-button>
      </template>
      <el-button v-else-if="where === 'high' && !task.spooning" class="big go next over" :disabled="!ready" @click="enter"
        >{{ say(-toGo) }} g over <kbd>Enter</kbd></el-button
      >
      <el-button v-else class="big next" :class="{ go: ready && where === 'right' }" :disabled="!ready || where !== 'right'" @click="enter"
        >{{ nextLabel }} <kbd>Enter</kbd></el-button
      >
    </template>
  </SheetCard>
</template>

<style scoped>
.figures {
  display: flex;
  align-items: stretch;
  justify-content: space-between;
  gap: var(--s3);
}
.live {
  font-size: clamp(96px, 14vw, 180px);
  font-weight: 800;
  line-height: 0.86;
  letter-spacing: -0.035em;
  padding: 8px 0 4px;
  white-space: nowrap;
}
.live small {
  font-size: 0.28em;
  letter-spacing: 0;
  font-weight: 700;
  margin-left: 6px;
}
.hollow {
  color: transparent;
  -webkit-text-stroke: 3px var(--ink-3);
}
.none {
  color: var(--ink-3);
  font-weight: 300;
}
.hollow small {
  -webkit-text-stroke: 0;
}
.to-go {
  flex: none;
  display: grid;
  align-content: center;
  justify-items: center;
  min-width: 164px;
  padding: var(--s2) var(--s3);
  border-radius: var(--r-well);
  background: var(--well);
  color: var(--ink-2);
  font-size: var(--t-lead);
}
.to-go b {
  color: var(--ink);
  font-size: clamp(52px, 6.6vw, 92px);
  font-weight: 800;
  line-height: 0.95;
  letter-spacing: -0.03em;
  white-space: nowrap;
}
.to-go small {
  font-size: 0.36em;
  margin-left: 2px;
  letter-spacing: 0;
}
.to-go.right {
  background: var(--leaf-wash);
  color: var(--leaf);
  font-size: var(--t-figure);
  font-weight: 780;
}
.to-go.high {
  background: var(--beet-wash);
  color: var(--beet);
}
.to-go.high b {
  color: var(--beet);
}
.says {
  display: flex;
  align-items: center;
  gap: var(--s2);
  font-size: 22px;
  font-weight: 650;
  line-height: 1.2;
}
.says.quiet {
  font-size: var(--t-lead);
  font-weight: 500;
  color: var(--ink-2);
}
@media (max-width: 560px) {
  .to-go {
    min-width: 96px;
    padding: var(--s1) var(--s2);
  }
  .to-go b {
    font-size: 44px;
  }
  .figures {
    gap: var(--s2);
  }
}
</style>
