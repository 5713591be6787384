<script setup lang="ts">
import { computed, onBeforeUnmount, ref, useTemplateRef, watch } from 'vue'
import { useEventListener, useMediaQuery } from '@vueuse/core'
import { useRoute, useRouter } from 'vue-router'
import { api, signedOut } from '@/api/client'
import { forms } from '@/bench/choices'
import { putAside } from '@/away/outbox'
import { useKitchen } from '@/kitchen/kitchen'
import { addressOf } from '@/parts/address'
import Icon from '@/parts/Icon.vue'
import { onStep } from '@/parts/figures'
import { letterKeys, unitsShown } from '@/parts/settings'
import { useScale } from '@/parts/useScale'
import BowlClock from './BowlClock.vue'
import BowlsPanel from './BowlsPanel.vue'
import CupsIn from './CupsIn.vue'
import GramsDialog from './GramsDialog.vue'
import MadeCard from './MadeCard.vue'
import OverPour from './OverPour.vue'
import PlayBar from './PlayBar.vue'
import SideNotes from './SideNotes.vue'
import SpreadCard from './SpreadCard.vue'
import StepCard from './StepCard.vue'
import WeighIn from './WeighIn.vue'
import { useSheet } from './sheet'
import { useCounter } from '@/parts/useCounter'
import SoundButton from '@/parts/SoundButton.vue'
import { inField, letGo } from '@/parts/hands'
import { forgetBowl } from './useWeighIn'

/** The sheet: propped against the flour tin, it leads through one bowl. */
const sheet = useSheet()
const kitchen = useKitchen()
const route = useRoute()
const router = useRouter()
const counter = useCounter()
const { scale } = useScale()
const phone = useMediaQuery('(max-width: 700px)')
const narrow = useMediaQuery('(max-width: 1100px)')
const bowlsOpen = ref(false)

watch(
  () => route.params.id,
  (id) => typeof id === 'string' && void sheet.open(id),
  { immediate: true },
)
void kitchen.load()
/** A sheet that is put down, or turned to another bowl, gives the scale back. */
function release(batch: string | undefined) {
  if (batch && scale.value) void api.POST('/devices/scale/lease', { body: { batch, release: true } }).catch(() => undefined)
}
watch(
  () => route.params.id,
  (_, was) => release(was as string | undefined),
)
onBeforeUnmount(() => {
  release(sheet.id)
  sheet.close()
  forgetBowl()
})

const batch = computed(() => sheet.batch)
const state = computed(() => batch.value?.state)
const task = computed(() => sheet.current)
const many = computed(() => forms.find((f) => f.value === batch.value?.plan.form)?.many ?? 'portions')
const weighing = computed(() => task.value?.kind === 'weigh')
/** What fills the sheet alone. */
const aside = computed(() => !!state.value?.ask || task.value?.kind === 'test')
/** By the scale, or by cups and spoons where they can say it. */
const byCups = computed(() => unitsShown.value === 'cups' && !!task.value?.fills?.length)

const card = useTemplateRef<{ enter?: () => unknown; zero?: () => unknown }>('card')
const typing = ref(false)
const splashing = ref(false)
const spilling = ref<string>()
const bowlNamed = (key?: string) => state.value?.bowls.find((b) => b.key === key)
const spillOpen = computed({ get: () => !!spilling.value, set: (v) => !v && (spilling.value = undefined) })

async function typed(grams: number) {
  const t = task.value
  if (t?.kind !== 'weigh') return ''
  return sheet.tell({ kind: 'weighed', task: t.id, grams, ...(t.at === 'top_up' ? { adds: true } : {}) }, `${t.label}, ${onStep(grams, 2)} g`, true)
}
const splashed = (grams: number) => sheet.tell({ kind: 'stirred_in', grams }, `${onStep(grams, 1)} g stirred in`, true)
const spilt = (grams: number) => sheet.tell({ kind: 'spilled', bowl: spilling.value, grams }, 'a spill', true)
const fridge = (into: boolean) => sheet.tell({ kind: into ? 'into_fridge' : 'out_of_fridge' }, into ? 'into the fridge' : 'out of the fridge')

/** Nothing happened yet: then putting it down leaves nothing behind. */
async function putDown() {
  const b = batch.value
  if (b && b.state.events === 0 && !sheet.waiting.length) await putAside(`/batches/${b.id}`, b.plan.name).catch(() => undefined)
  await router.push(addressOf(b?.from?.id))
}
useEventListener(window, 'keydown', (e: KeyboardEvent) => {
  if (e.ctrlKey || e.metaKey || e.altKey || inField(e.target)) return
  if (e.key === 'Escape') {
    if (bowlsOpen.value) bowlsOpen.value = false
    else void putDown()
  } else if (e.key === 'Enter') {
    if (e.target instanceof HTMLElement && e.target.closest('button, a, [role=slider]')) return
    card.value?.enter?.()
  } else if (!letterKeys.value) return
  else if (e.key === '0') card.value?.zero?.()
  else if ((e.key === 't' || e.key === 'T') && weighing.value && !state.value?.ask) typing.value = true
  else return
  e.preventDefault()
})
</script>

<template>
  <main id="work" tabindex="-1" class="sheet-view" @click="letGo">
    <template v-if="batch && state">
      <header class="bar">
        <div class="place">
          <small
            ><template v-if="kitchen.own">{{ kitchen.own.name }} · </template
            >{{ batch.plan.common ? 'sheet for a common batter' : `sheet for ${state.count} ${many}` }}</small
          >
          <h1>{{ batch.plan.name }}</h1>
        </div>
        <BowlClock :clock="state.clock" :now="sheet.nowMs" :paused="sheet.clockWaits" @fridge="fridge" />
        <el-radio-group v-model="unitsShown" class="pick" aria-label="Units">
          <el-radio-button value="grams">g</el-radio-button><el-radio-button value="cups">cups</el-radio-button>
        </el-radio-group>
        <SoundButton :counter="counter" />
        <el-dropdown trigger="click">
          <el-button class="ghost" aria-label="More" title="More"><Icon name="more" /></el-button>
          <template #dropdown>
            <el-dropdown-menu>
              <el-dropdown-item v-if="counter.canShake.value"><el-checkbox v-model="counter.shakes.value">Vibration</el-checkbox></el-dropdown-item>
              <el-dropdown-item v-for="b in state.bowls.filter((b) => b.in_g)" :key="b.key" :data-spilt="b.key" @click="spilling = b.key"
                ><Icon name="drop" :size="18" />Something of the {{ b.name }} is spilt</el-dropdown-item
              >
              <el-dropdown-item><a class="out" :href="`/api/v1/batches/${batch.id}/document`" download>This batch as a file</a></el-dropdown-item>
            </el-dropdown-menu>
          </template>
        </el-dropdown>
        <el-button class="down" :aria-label="phone ? 'Put it down' : undefined" @click="putDown"
          ><Icon v-if="phone" name="close" /><template v-else>Put it down <kbd>Esc</kbd></template></el-button
        >
      </header>
      <p v-if="sheet.trouble" class="panel band" role="alert"><i class="sign high" />{{ sheet.trouble }}</p>
      <p v-else-if="sheet.away && !signedOut" class="panel band" role="status" data-away>
        <Icon name="offline" />The program is away. What you tick waits on this tablet{{
          sheet.waiting.length ? `: ${sheet.waiting.length} so far` : ''
        }}
        and lands by itself.
      </p>
      <div class="body" :class="{ asked: aside }">
        <BowlsPanel v-if="!narrow" class="left" @pick="sheet.picked = $event" @spill="spilling = $event" />
        <section class="panel work-card" :aria-label="task?.label ?? 'What to do now'">
          <OverPour v-if="state.ask" :key="state.ask.task" ref="card" :ask="state.ask" />
          <CupsIn v-else-if="byCups" :key="`cups ${task!.id} ${task!.at}`" ref="card" :task="task!" @type="typing = true" />
          <WeighIn v-else-if="weighing" ref="card" :task="task!" @type="typing = true" @sound="counter.sound($event)" />
          <SpreadCard v-else-if="task?.kind === 'test'" :key="task.id" ref="card" :task="task" @splash="splashing = true" />
          <StepCard v-else-if="task" :key="task.id" ref="card" :task="task" @sound="counter.sound($event)" />
          <MadeCard v-else ref="card" />
        </section>
        <el-button v-if="narrow" class="big bowls-door" @click="bowlsOpen = true"
          ><Icon name="list" />In the bowls: {{ state.weighed }} of {{ state.to_weigh }}</el-button
        >
        <SideNotes v-if="!aside && (!phone || !weighing)" class="right" />
      </div>
      <PlayBar v-if="scale?.simulated && weighing && !byCups && !state.ask" :task="task" />
      <el-drawer v-if="narrow" v-model="bowlsOpen" title="In the bowls" direction="ltr" size="min(380px, 94vw)">
        <BowlsPanel @pick="((sheet.picked = $event), (bowlsOpen = false))" @spill="((spilling = $event), (bowlsOpen = false))" />
      </el-drawer>
      <GramsDialog v-model="typing" :title="task?.label ?? ''" label="It weighs" :keep="typed" />
      <GramsDialog
        v-model="splashing"
        title="A splash nobody asked for"
        label="About"
        says="Of the liquid of the base. It is counted, and the test goes on with it."
        :keep="splashed" />
      <GramsDialog
        v-model="spillOpen"
        :title="`Something of the ${bowlNamed(spilling)?.name ?? 'bowl'} is gone`"
        label="About"
        says="Weigh the bowl again, or judge it by eye: each line in it loses its share."
        :keep="spilt" />
    </template>
    <section v-else class="panel empty">
      <template v-if="sheet.gone">
        <h1>This sheet is not there any more</h1>
        <p>Somebody put it aside. Begin again from the bench.</p>
      </template>
      <p v-else-if="sheet.trouble" role="alert"><i class="sign high" /> {{ sheet.trouble }}</p>
      <p v-else>Opening the sheet</p>
      <p class="begin">
        <el-button v-if="sheet.trouble && !sheet.gone" class="go" @click="sheet.open(String(route.params.id))">Try again</el-button>
        <router-link class="el-button" to="/">To the bench</router-link>
      </p>
    </section>
  </main>
</template>

<style scoped>
.sheet-view {
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
  gap: var(--s1) var(--s3);
  min-height: 62px;
  padding-left: var(--s1);
}
.place {
  flex: 1 1 200px;
  min-width: 0;
}
.place small {
  display: block;
  font-size: var(--t-mini);
  color: var(--ink-2);
}
h1 {
  font-size: var(--t-title);
  overflow-wrap: anywhere;
}
.band {
  display: flex;
  align-items: center;
  gap: var(--s2);
  padding: var(--s2) var(--s4);
  font-weight: 600;
}
.body {
  flex: 1;
  display: grid;
  grid-template-columns: minmax(270px, 306px) minmax(0, 1fr) minmax(190px, 222px);
  gap: var(--s3);
  min-height: 0;
}
.body.asked {
  grid-template-columns: minmax(270px, 306px) minmax(0, 1fr);
}
.work-card {
  display: grid;
  grid-template: minmax(0, 1fr) / minmax(0, 1fr);
  min-height: 0;
}
.sheet-view :deep(.el-button.big) {
  height: auto;
  min-height: 60px;
  padding: 6px var(--s3);
  font-size: var(--t-lead);
  white-space: normal;
  text-align: left;
}
.sheet-view :deep(.next) {
  margin-left: auto;
  min-width: 150px;
}
.out {
  color: var(--ink);
  text-decoration: none;
}
.empty {
  place-self: center;
  display: grid;
  gap: var(--s3);
  padding: var(--s5);
  margin: auto;
}
.begin {
  display: flex;
  gap: var(--s2);
}
@media (max-width: 1100px) {
  .body,
  .body.asked {
    grid-template: minmax(0, 1fr) auto auto / minmax(0, 1fr);
  }
}
@media (max-width: 900px) {
  .sheet-view {
    padding: 0 var(--s2) var(--s2);
  }
}
@media (max-width: 900px) {
  .place {
    flex-basis: 120px;
  }
  .sheet-view :deep(kbd) {
    display: none;
  }
}
@media (max-width: 700px) {
  .sheet-view {
    overflow-y: auto;
  }
  .place {
    flex-basis: 60%;
  }
  .work-card {
    grid-template-rows: auto;
  }
  .sheet-view :deep(.work-card > *) {
    min-width: 0;
  }
  .body,
  .body.asked {
    grid-template: auto / minmax(0, 1fr);
    flex: none;
  }
}
</style>
