<script setup lang="ts">
import AmountField from '@/parts/AmountField.vue'
import FigureField from '@/parts/FigureField.vue'
import { computed, ref } from 'vue'
import { atClock, countdown } from '@/parts/clock'
import Icon from '@/parts/Icon.vue'
import { useBoard, type Tray } from './board'
import { msOf } from './words'

/** What waits in the oven, what has the least time left first, and for how long it still may. */
const emit = defineEmits<{ bag: [tray: string] }>()
const board = useBoard()
const state = computed(() => board.state!)
const heats = computed(() => board.board!.heats)
const name = (key: string) => board.bowls.get(key)?.name ?? ''
const sent = (t: Tray, count: number) => board.tell({ kind: 'served', tray: t.key, count }, `sent ${count} ${name(t.bowl)}`)
const off = (t: Tray, kind: 'thrown' | 'frozen', count = t.count) =>
  board.tell({ kind, tray: t.key, count }, kind === 'frozen' ? `${count} into the freezer` : `threw ${count} away`)
/** How many of a tray go into the freezer; the rest waits on. */
const freezing = ref<Tray>()
const many = ref(1)
function askFreeze(t: Tray) {
  if (t.count === 1) return void off(t, 'frozen')
  many.value = t.count
  freezing.value = t
}
async function freeze() {
  const t = board.trays.find((x) => x.key === freezing.value?.key)
  freezing.value = undefined
  if (t) await off(t, 'frozen', Math.min(many.value, t.count))
}
const oven = () => board.tell({ kind: 'oven', off: state.value.oven_on || undefined }, state.value.oven_on ? 'oven off' : 'oven on')
const held = (t: Tray) => Math.max(0, (board.nowMs - msOf(t.since)) / 60000)
const left = (t: Tray) => t.limit_min - held(t)

const probing = ref(false)
const probe = ref<number>()
const probeSays = ref('')
async function keepProbe() {
  if (probe.value === undefined) return
  probeSays.value = await board.tell({ kind: 'probed', c: probe.value }, `food ${probe.value} °C`, true)
  if (!probeSays.value) probing.value = false
}
function openProbe() {
  probe.value = heats.value.probe_c !== undefined ? Math.round(heats.value.probe_c) : undefined
  probeSays.value = ''
  probing.value = true
}
</script>

<template>
  <section class="panel rack" aria-label="Hold rack">
    <header class="head">
      <h2>Hold rack</h2>
      <p>{{ state.oven_on ? `oven ${state.oven_c} °C` : 'oven off' }}</p>
      <el-button class="ghost" @click="oven">{{ state.oven_on ? 'Oven off' : 'Oven on' }}</el-button>
      <el-button class="ghost" data-probe @click="openProbe">{{
        heats.probe_c !== undefined ? `Probe ${heats.probe_c.toFixed(0)} °C` : 'Probe'
      }}</el-button>
    </header>
    <p class="muted says">
      <template v-if="state.food_at">At {{ atClock(state.food_at) }}: </template>{{ state.food_says }} Follow your local code.
    </p>
    <ul class="trays">
      <li v-for="t in board.trays" :key="t.key" class="tray" :class="t.now.state" :data-tray="t.now.state">
        <p class="time">
          <b>{{ held(t).toFixed(0) }} min</b>
          <span>{{ left(t) > 0 ? `${Math.ceil(left(t))} left` : `${Math.floor(-left(t))} over` }}</span>
        </p>
        <div class="bar" role="presentation"><i :style="{ width: `${Math.min(100, (100 * held(t)) / t.limit_min)}%` }" /></div>
        <p class="what">
          <b>{{ t.count }} × {{ name(t.bowl) }}</b>
        </p>
        <p v-if="t.now.text" class="warn"><Icon name="caution" :size="18" />{{ t.now.text }}</p>
        <p v-else class="muted">{{ t.how }}</p>
        <p class="acts">
          <el-button :class="{ go: t.now.state === 'soon' || t.now.state === 'over' }" :disabled="t.now.state === 'unfit'" @click="sent(t, t.count)"
            >Send {{ t.count }}</el-button
          >
          <el-button v-if="t.count > 1 && t.now.state !== 'unfit'" @click="sent(t, 1)">Send 1</el-button>
          <el-dropdown trigger="click">
            <el-button class="ghost" :aria-label="`More for ${t.count} ${name(t.bowl)}`"><Icon name="more" /></el-button>
            <template #dropdown>
              <el-dropdown-menu>
                <el-dropdown-item :disabled="!t.may_freeze" :title="t.no_freeze" @click="askFreeze(t)"
                  ><Icon name="fridge" :size="18" />{{ t.count > 1 ? 'Freeze some, flat' : 'Freeze it, flat' }}</el-dropdown-item
                >
                <el-dropdown-item v-if="t.count > 1" @click="off(t, 'thrown', 1)"><Icon name="bin" :size="18" />Throw one away</el-dropdown-item>
                <el-dropdown-item @click="off(t, 'thrown')"
                  ><Icon name="bin" :size="18" />{{ t.count > 1 ? `Throw all ${t.count} away` : 'Throw it away' }}</el-dropdown-item
                >
              </el-dropdown-menu>
            </template>
          </el-dropdown>
        </p>
      </li>
      <li v-for="f in state.flat" :key="f.key" class="tray flat" data-flat>
        <p class="time">
          <b>{{ board.nowMs < msOf(f.due_at) ? countdown(msOf(f.due_at) - board.nowMs) : 'bag' }}</b><span>flat in the freezer</span>
        </p>
        <p class="what">
          <b>{{ f.count }} × {{ name(f.bowl) }}</b>
        </p>
        <p class="acts"><el-button data-bag @click="emit('bag', f.key)">Bag and label</el-button></p>
      </li>
      <li v-if="!state.rack.length && !state.flat.length" class="tray none">
        <p>Nothing waits. What is lifted lies here with its time.</p>
      </li>
    </ul>
    <el-dialog
      :model-value="!!freezing"
      :title="`Freeze ${freezing ? name(freezing.bowl) : ''}`"
      width="min(420px, 94vw)"
      append-to-body
      @update:model-value="freezing = undefined">
      <form @submit.prevent="freeze">
        <el-form-item label="How many">
          <FigureField v-model="many" :limits="{ low: 1, high: freezing?.count ?? 1 }" :step="1" label="How many go into the freezer" />
        </el-form-item>
        <p class="muted">Of {{ freezing?.count }}: the others wait on, on the same clock.</p>
        <p class="acts">
          <el-button class="go" native-type="submit">Freeze {{ many }}</el-button>
        </p>
      </form>
    </el-dialog>
    <el-dialog v-model="probing" title="How hot is the food?" width="min(420px, 94vw)" append-to-body>
      <form @submit.prevent="keepProbe">
        <el-form-item label="The probe reads" :error="probeSays">
          <AmountField v-model="probe" :limits="{ low: -30, high: 150 }" label="The probe reads, in °C" /><span>&nbsp;°C</span>
        </el-form-item>
        <p class="muted">In the middle of the one that waits longest. It outranks every clock.</p>
        <p class="acts"><el-button class="go" native-type="submit" :disabled="probe === undefined">Keep it</el-button></p>
      </form>
    </el-dialog>
  </section>
</template>

<style scoped>
.rack {
  padding: var(--s2) var(--s3) var(--s3);
}
.head {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0 var(--s3);
  padding: 0;
}
.head p {
  margin-right: auto;
}
.says {
  font-size: var(--t-mini);
}
.trays {
  list-style: none;
  display: flex;
  gap: var(--s2);
  margin: var(--s1) 0 0;
  padding: 0 0 4px;
  overflow-x: auto;
}
.tray {
  flex: 0 0 236px;
  display: grid;
  gap: 4px;
  align-content: start;
  padding: var(--s2) var(--s3);
  border: 2px solid transparent;
  border-radius: var(--r-well);
  background: var(--well);
}
.soon {
  background: var(--yolk-wash);
  border-color: var(--on-yolk);
}
.over,
.unfit {
  background: var(--beet-wash);
  border-color: var(--beet);
}
.none {
  flex: 1 0 236px;
  border: 2px dashed var(--edge);
  background: none;
  color: var(--ink-2);
}
.time {
  display: flex;
  align-items: baseline;
  justify-content: space-between;
  gap: var(--s2);
}
.time b {
  font-size: var(--t-figure);
  line-height: 1;
}
.bar {
  height: 10px;
  border-radius: 5px;
  background: var(--well-2);
  overflow: hidden;
}
.bar i {
  display: block;
  height: 100%;
  background: var(--ink-2);
}
.over .bar i,
.unfit .bar i {
  background: var(--beet);
}
.what {
  overflow-wrap: anywhere;
}
.warn {
  display: flex;
  gap: 6px;
  color: var(--ink);
  font-weight: 650;
}
.over .warn,
.unfit .warn {
  color: var(--beet);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s1);
}
.tray .go {
  font-size: var(--t-body);
  padding: 0 var(--s3);
}
</style>
