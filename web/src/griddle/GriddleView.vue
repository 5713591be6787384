<script setup lang="ts">
import { useEventListener, useMediaQuery } from '@vueuse/core'
import { computed, nextTick, onBeforeUnmount, ref, useTemplateRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { signedOut } from '@/api/client'
import { putAside } from '@/away/outbox'
import { useKitchen } from '@/kitchen/kitchen'
import { atClock } from '@/parts/clock'
import Icon from '@/parts/Icon.vue'
import { letterKeys } from '@/parts/settings'
import { useCounter } from '@/parts/useCounter'
import SoundButton from '@/parts/SoundButton.vue'
import { inField, letGo } from '@/parts/hands'
import BagDialog from './BagDialog.vue'
import PlatePanel from './PlatePanel.vue'
import PutOnDialog from './PutOnDialog.vue'
import QueuePanel from './QueuePanel.vue'
import RackPanel from './RackPanel.vue'
import VerdictStrip from './VerdictStrip.vue'
import { keyOf, useBoard, type Todo } from './board'
import { stands } from './words'

/** The board of a morning: what to pour, flip and lift next, on every plate, and what waits in the oven. */
const board = useBoard()
const kitchen = useKitchen()
const counter = useCounter()
const route = useRoute()
const router = useRouter()
const narrow = useMediaQuery('(max-width: 1000px)')
const phone = useMediaQuery('(max-width: 600px)')
void board.find()
void kitchen.load()
onBeforeUnmount(board.close)

const state = computed(() => board.state)
const adding = ref(false)
const addTo = ref<string>()
const addBatch = ref<string>()
const bagging = ref<string>()
function add(plate?: string, batch?: string) {
  addTo.value = plate
  addBatch.value = batch
  adding.value = true
}
/** From a sheet: its bowl goes on, on a board that is begun for it when there is none. */
watch(
  () => [board.looked, route.query.batch] as const,
  async ([looked, batch]) => {
    if (!looked || typeof batch !== 'string') return
    if (!board.board) await board.begin()
    if (board.board) add(undefined, batch)
    await router.replace({ path: '/griddle' })
  },
  { immediate: true },
)

const judged = computed(() => state.value?.bowls.filter((b) => b.judge) ?? [])
/** A plate is shown when something is on it, and the others while the board is empty; on a small page one at a time. */
const busy = computed(() => state.value?.plates.filter((p) => p.bowl) ?? [])
const looksAt = ref<string>()
const shown = computed(() => {
  const all = busy.value.length ? busy.value : (state.value?.plates ?? [])
  if (!narrow.value) return all
  return all.filter((p) => p.id === (all.some((x) => x.id === looksAt.value) ? looksAt.value : all[0]?.id))
})
const dueOn = (id: string) =>
  state.value?.plates.find((p) => p.id === id)?.places.filter((p) => p.portion && stands(p, board.nowMs).state !== 'ahead').length ?? 0

/** One verdict at a time: the one that was asked for, else the first. */
const asked = ref<string>()
const judging = computed(() => judged.value.find((b) => b.key === asked.value) ?? judged.value[0])
const strip = useTemplateRef<{ focus: () => void }>('strip')
function act(t: Todo) {
  if (t.act === 'judge') {
    asked.value = t.of
    void nextTick(() => strip.value?.focus())
  } else if (t.act === 'bag') bagging.value = t.tray
  else void board.does(t)
}
const head = computed(() => board.todo.find((t) => t.due || stands(t, board.nowMs).state !== 'ahead'))

/** A sound when something is due, another when it is late; each once. */
const heard = new Set<string>()
watch(
  () => board.nowMs,
  (now) => {
    for (const t of board.todo) {
      const s = stands(t, now).state
      if (s === 'ahead' || !t.tell || !t.due_at) continue
      const key = `${s} ${keyOf(t.tell)}`
      if (heard.has(key)) continue
      heard.add(key)
      counter.sound(s === 'late' ? 'over' : 'right')
    }
    for (const t of board.trays) {
      const key = `${t.now.state} ${t.key}`
      if (t.now.state === 'fine' || heard.has(key)) continue
      heard.add(key)
      counter.sound('rested')
    }
  },
)

/** A number acts on its place; where there are ten and more, the second digit is waited for. */
let digits = ''
let digitTimer: ReturnType<typeof setTimeout> | undefined
const places = computed(() => state.value?.plates.flatMap((p) => p.places) ?? [])
function number(d: string) {
  clearTimeout(digitTimer)
  digits += d
  const n = Number(digits)
  const more = places.value.some((p) => p.number !== n && String(p.number).startsWith(digits))
  if (more && digits.length < 2) digitTimer = setTimeout(go, 700)
  else go()
}
function go() {
  const place = places.value.find((p) => p.number === Number(digits))
  digits = ''
  if (place?.next && !(place.next.tell && board.pressed.has(keyOf(place.next.tell)))) void board.does(place.next)
}
useEventListener(window, 'keydown', (e: KeyboardEvent) => {
  if (e.ctrlKey || e.metaKey || e.altKey || e.repeat || inField(e.target) || !state.value || state.value.closed) return
  if (e.key === ' ') {
    if (e.target instanceof HTMLElement && e.target.closest('button, a, [role=button]') && !e.target.closest('[data-now]')) return
    if (head.value) act(head.value)
  } else if (!letterKeys.value) return
  else if (/^[0-9]$/.test(e.key) && (digits || e.key !== '0')) number(e.key)
  else if (e.key === 'z' || e.key === 'Z') board.takeBack()
  else return
  e.preventDefault()
})

const lastOff = computed(() => (state.value?.last_off ? `last one off about ${atClock(state.value.last_off)}` : ''))
const stop = () => board.tell({ kind: 'stopped', off: state.value?.stopped || undefined }, state.value?.stopped ? 'pouring on' : 'no more is poured')
const closing = ref(false)
async function close() {
  closing.value = false
  await board.tell({ kind: 'closed' }, 'put away')
  await board.find()
}
async function throwAway() {
  const b = board.board
  if (!b) return
  await putAside(`/boards/${b.id}`, b.name).catch(() => undefined)
  await board.find()
}
const left = computed(() => (state.value ? state.value.on_plates + state.value.on_rack : 0))
</script>

<template>
  <main id="work" tabindex="-1" class="griddle" @click="letGo">
    <template v-if="board.board && state && !state.closed">
      <header class="bar">
        <div class="title">
          <small
            ><template v-if="kitchen.own">{{ kitchen.own.name }} · </template>{{ board.board.name }}</small
          >
          <h1>Griddle</h1>
        </div>
        <span v-if="lastOff" class="chip">{{ lastOff }}</span>
        <el-button :aria-label="phone ? 'Put a bowl on' : undefined" data-add @click="add()"
          ><Icon name="plus" /><template v-if="!phone">Put a bowl on</template></el-button
        >
        <SoundButton :counter="counter" />
        <el-button v-if="state.bowls.length" class="stop" @click="stop">{{ state.stopped ? 'Pour on' : 'Stop pouring' }}</el-button>
        <el-dropdown trigger="click">
          <el-button class="ghost" aria-label="More" title="More"><Icon name="more" /></el-button>
          <template #dropdown>
            <el-dropdown-menu class="board-more">
              <el-dropdown-item v-if="counter.canShake.value"><el-checkbox v-model="counter.shakes.value">Vibration</el-checkbox></el-dropdown-item>
              <el-dropdown-item
                v-for="b in state.bowls.filter((x) => !x.ended && x.poured < x.count)"
                :key="b.key"
                @click="board.tell({ kind: 'ended', of: b.key }, `no more of ${b.name}`)"
                >No more of {{ b.name }}</el-dropdown-item
              >
              <el-dropdown-item @click="router.push('/freezer')"><Icon name="fridge" :size="18" />The freezer</el-dropdown-item>
              <el-dropdown-item
                ><a class="out" :href="`/api/v1/exports/boards/${board.board.id}?as=json`" download>This board as a file</a></el-dropdown-item
              >
              <el-dropdown-item @click="state.events ? (closing = true) : throwAway()">Put the board away</el-dropdown-item>
            </el-dropdown-menu>
          </template>
        </el-dropdown>
      </header>
      <p v-if="board.trouble" class="panel band" role="alert"><i class="sign high" />{{ board.trouble }}</p>
      <p v-else-if="board.away && !signedOut" class="panel band" role="status" data-away>
        <Icon name="offline" />The program is away: what lies there counts on. What you press waits on this tablet{{
          board.waiting.length ? `: ${board.waiting.length} so far` : ''
        }}; it counts again, from when you pressed, when the program is back.
      </p>
      <div class="body">
        <QueuePanel class="todo" :rows="narrow ? (phone ? 1 : 3) : 9" @act="act">
          <VerdictStrip v-if="judging && !narrow" :key="`${judging.key} ${judging.poured}`" ref="strip" :bowl="judging" :more="judged.length - 1" />
        </QueuePanel>
        <div class="left">
          <el-radio-group
            v-if="narrow && busy.length > 1"
            :model-value="shown[0]?.id"
            class="pick tabs"
            aria-label="The plate"
            @change="looksAt = String($event)">
            <el-radio-button v-for="p in busy" :key="p.id" :value="p.id"
              >{{ p.name }}<b v-if="dueOn(p.id)" class="due">{{ dueOn(p.id) }} due</b></el-radio-button
            >
          </el-radio-group>
          <div class="plates" :class="{ few: shown.length === 1 }">
            <PlatePanel
              v-for="p in shown"
              :key="p.id"
              :plate="p"
              :class="{ round: p.round && !p.iron }"
              :flow="phone"
              :style="{ flexGrow: p.bowl ? p.width_mm : 1, flexBasis: `${p.bowl ? Math.max(p.iron ? 330 : 250, p.width_mm * 0.7) : 220}px` }"
              @add="add(p.id)" />
            <RackPanel class="rack" @bag="bagging = $event" />
          </div>
          <VerdictStrip v-if="judging && narrow" :key="`${judging.key} ${judging.poured}`" ref="strip" :bowl="judging" :more="judged.length - 1" />
          <p v-if="state.cautions.length" class="muted cautions">{{ state.cautions.join(' ') }}</p>
        </div>
      </div>
    </template>
    <section v-else class="panel empty">
      <template v-if="board.lookTrouble">
        <p role="alert"><i class="sign high" /> {{ board.lookTrouble }}</p>
        <el-button class="go" @click="board.looked ? board.begin() : board.find()">Try again</el-button>
      </template>
      <template v-else-if="board.looked">
        <h1>No board is open</h1>
        <p>A board says what to pour, flip and lift next, on every plate and iron of your kitchen, and keeps the time of what waits in the oven.</p>
        <p class="begin">
          <el-button class="go" data-begin @click="board.begin()">Begin a board</el-button>
          <router-link class="el-button" to="/freezer"
            ><span><Icon name="fridge" :size="18" />The freezer</span></router-link
          >
        </p>
        <template v-if="board.earlier.length">
          <h2>Earlier mornings</h2>
          <ul class="rows">
            <li v-for="b in board.earlier" :key="b.id" class="well">
              <span class="what"
                ><b>{{ b.name }}</b
                ><small>{{ b.trouble ?? `${b.bowls.join(', ') || 'nothing was put on'}: ${b.poured} poured, ${b.served} served` }}</small></span
              >
              <a class="el-button" :href="`/api/v1/exports/boards/${b.id}?as=text`" download>As text</a>
            </li>
          </ul>
        </template>
      </template>
      <p v-else>Looking for the board</p>
    </section>
    <PutOnDialog v-if="board.board" v-model="adding" :on-plate="addTo" :of-batch="addBatch" />
    <BagDialog v-if="board.board" v-model="bagging" />
    <el-dialog v-model="closing" title="Put the board away" width="min(460px, 94vw)" append-to-body>
      <p v-if="left"><i class="sign high" /> {{ left }} still lie on the plates or in the oven. They are not followed any more.</p>
      <p v-else>Everything is off the plates and out of the oven. The morning stays to look at.</p>
      <p class="acts"><el-button class="go" @click="close">Put it away</el-button><el-button @click="closing = false">Not yet</el-button></p>
    </el-dialog>
  </main>
</template>

<style scoped>
.griddle {
  display: flex;
  flex-direction: column;
  gap: var(--s2);
  min-width: 0;
  min-height: 0;
  padding: 0 var(--s3) var(--s3) 0;
  overflow: hidden;
}
.bar {
  flex: none;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s1) var(--s2);
  min-height: 62px;
  padding-left: var(--s1);
}
.title {
  flex: 1;
  min-width: 120px;
  line-height: 1.15;
}
.title small {
  color: var(--ink-2);
}
h1 {
  font-size: var(--t-title);
}
.stop {
  color: var(--beet);
  border-color: var(--beet);
}
.band {
  flex: none;
  display: flex;
  align-items: center;
  gap: var(--s2);
  padding: var(--s2) var(--s4);
}
.body {
  flex: 1;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 310px;
  gap: var(--s3);
  min-height: 0;
}
.todo {
  order: 2;
}
.left {
  display: flex;
  flex-direction: column;
  gap: var(--s3);
  min-height: 0;
  overflow-y: auto;
}
.left > * {
  flex: none;
}
.plates {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s3);
}
.plates > * {
  min-width: 0;
}
.plates > .round {
  --most: 220px;
}
.plates > .iron {
  --most: 165px;
}
.plates.few > * {
  --most: 420px;
}
.plates > .rack {
  flex: 1000 1 420px;
}
.due {
  margin-left: 8px;
  padding: 0 8px;
  border-radius: var(--r-pill);
  background: var(--yolk);
  color: var(--on-yolk);
}
.cautions {
  font-size: var(--t-mini);
}
.empty {
  align-self: center;
  display: grid;
  gap: var(--s3);
  width: min(640px, 100%);
  margin: auto;
  padding: var(--s5);
  overflow-y: auto;
}
.begin {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s2);
}
.begin a,
.rows a,
.out {
  text-decoration: none;
  color: inherit;
}
@media (max-width: 600px) {
  .title {
    min-width: 0;
  }
  .title small,
  .bar .chip {
    display: none;
  }
}
@media (max-width: 1000px) {
  .griddle {
    padding: 0 var(--s2) var(--s2);
  }
  .body {
    display: flex;
    flex-direction: column;
    overflow-y: auto;
  }
  .body > * {
    flex: none;
  }
  .todo {
    order: 0;
    position: sticky;
    top: 0;
    z-index: 2;
  }
  .left {
    overflow: visible;
  }
}
</style>
