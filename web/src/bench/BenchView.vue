<script setup lang="ts">
import { computed, nextTick, onMounted, ref, watch } from 'vue'
import { useMediaQuery } from '@vueuse/core'
import { useRoute, useRouter } from 'vue-router'
import { addressOf } from '@/parts/address'
import { say } from '@/parts/say'
import { said, signedOut } from '@/api/client'
import { useBases } from '@/bases/bases'
import { useKitchen } from '@/kitchen/kitchen'
import Icon from '@/parts/Icon.vue'
import { useBench } from './bench'
import BalanceStrip from '@/bench/balance/BalanceStrip.vue'
import TwoSides from '@/parts/TwoSides.vue'
import HandDock from '@/bench/hand/HandDock.vue'
import HeatReasons from '@/bench/heat/HeatReasons.vue'
import { useHeat } from '@/bench/heat/heat'
import { useMaking } from '@/bench/make/making'
import LedgerTable from '@/bench/ledger/LedgerTable.vue'
import NotesStrip from '@/bench/notes/NotesStrip.vue'
import PortionPanel from '@/bench/portion/PortionPanel.vue'
import ShelfPanel from '@/bench/shelf/ShelfPanel.vue'
import TopBar from './TopBar.vue'
import VerdictLine from './VerdictLine.vue'
import ZoneSwitch, { type Zone } from './ZoneSwitch.vue'
import { useBenchKeys } from './useBenchKeys'
import { useAskedBy } from '@/parts/askedBy'
import { useEverOpen } from '@/parts/everOpen'
import { later } from '@/parts/later'

const HelpDialog = later(() => import('@/help/HelpDialog.vue'))
const NotesPanel = later(() => import('@/bench/notes/NotesPanel.vue'))
const SwapPanel = later(() => import('@/bench/swap/SwapPanel.vue'))
const VariationsDrawer = later(() => import('@/bench/dialogs/VariationsDrawer.vue'))
const VersionsDialog = later(() => import('@/bench/dialogs/VersionsDialog.vue'))
const WhyPanel = later(() => import('@/bench/why/WhyPanel.vue'))
const HeatPanel = later(() => import('@/bench/heat/HeatPanel.vue'))
const PrintDialog = later(() => import('@/bench/print/PrintDialog.vue'))
const ToppingsDialog = later(() => import('@/bench/dialogs/ToppingsDialog.vue'))
const PullingDialog = later(() => import('@/bench/make/PullingDialog.vue'))
const GuestDialog = later(() => import('@/house/GuestDialog.vue'))
const BenchTour = later(() => import('@/help/BenchTour.vue'))

const bench = useBench()
const route = useRoute()
const router = useRouter()
const kitchen = useKitchen()
const heat = useHeat()
const bases = useBases()
const phone = useMediaQuery('(max-width: 700px)')
const zone = ref<Zone>('list')
const shelf = ref<InstanceType<typeof ShelfPanel>>()
const shelfOpen = ref(false)
const variations = ref(false)
useAskedBy('variations', variations) // by whoever looks for one from elsewhere
const help = ref(false)
const versions = ref(false)
const notes = ref(false)
const touring = ref(false)
watch(
  () => kitchen.revision,
  (now, was) => was && now !== was && void bench.work(),
)
const printing = ref(false)
const inviting = ref(false)
const steps = ref(false)
const pulling = ref(false)
const toppings = ref(false)
const making = useMaking()
const ever = {
  variations: useEverOpen(variations),
  versions: useEverOpen(versions),
  help: useEverOpen(help),
  printing: useEverOpen(printing),
  pulling: useEverOpen(pulling),
  toppings: useEverOpen(toppings),
}

/** What stands beside the list: the working of a figure, the notes, else what is in hand and the portion. */
const beside = computed(() => (bench.why ? 'why' : bench.swapping ? 'swap' : notes.value ? 'notes' : undefined))
const shows = (z: Zone) => !phone.value || (!beside.value && zone.value === z)
watch(
  () => bench.why ?? bench.swapping,
  (open) => open && (notes.value = false),
)
watch(
  () => bench.id,
  () => (notes.value = false),
)
function toggleNotes() {
  bench.why = bench.swapping = undefined
  notes.value = !notes.value
}

async function find() {
  bench.why = bench.swapping = undefined
  notes.value = heat.open = false
  if (phone.value) shelfOpen.value = true
  await nextTick()
  setTimeout(() => shelf.value?.focusFind())
}
function startTour() {
  bench.why = bench.swapping = undefined
  notes.value = heat.open = false
  touring.value = true
}
/** An empty bench leads to a variation: with bases to their list, without any by way of the starter bases. */
const beginning = ref(false)
watch(
  () => bench.loaded && !bench.doc,
  (empty) => empty && void bases.load(),
)
async function begin() {
  beginning.value = true
  try {
    if (!bases.shelf.length) await bases.addStarter()
    variations.value = true
  } catch (e) {
    say(said(e))
  } finally {
    beginning.value = false
  }
}
function back() {
  if (bench.why || bench.swapping) bench.why = bench.swapping = undefined
  else notes.value = false
}

useBenchKeys(bench, {
  find: () => void find(),
  keys: () => (help.value = true),
  heat: () => (heat.open = !heat.open),
  back,
})
onMounted(() => {
  void kitchen.load()
  void bench.start(asked())
})

// The address says what is on the bench, and the bench the address: a page that is kept or sent on opens it again.
const asked = () => (typeof route.params.id === 'string' ? route.params.id : undefined)
watch(
  () => bench.id,
  (id, was) => {
    if (id === asked()) return
    if (was && id) void router.push(addressOf(id))
    else void router.replace(addressOf(id))
  },
)
watch(asked, (id) => {
  if (id && id !== bench.id) void bench.start(id)
})
watch(
  () => bench.missing,
  (why) => {
    if (!why) return
    say({ message: why, duration: 8000, showClose: true })
    bench.missing = undefined
    void router.replace(addressOf(bench.id))
  },
)
</script>

<template>
  <main id="work" tabindex="-1" class="work">
    <template v-if="bench.doc">
      <TopBar
        @variations="variations = true"
        @versions="versions = true"
        @help="help = true"
        @print="printing = true"
        @guest="inviting = true"
        @steps="steps = true"
        @pulling="pulling = true"
        @toppings="toppings = true" />
      <div class="body" :class="{ heating: heat.open && bench.sheet, troubled: bench.trouble }">
        <p v-if="bench.trouble && !(heat.open && bench.sheet)" class="panel trouble" role="alert">
          <i class="sign high" /><span>{{ bench.trouble }} <template v-if="bench.sheet">The figures below are the last good ones.</template></span>
          <el-button @click="bench.work">Try again</el-button>
        </p>
        <p v-if="!bench.sheet && !bench.trouble" class="panel wait">Working it out</p>
        <template v-if="bench.sheet">
          <VerdictLine v-model:steps="steps" class="verdict" :sheet="bench.sheet" />
          <template v-if="heat.open">
            <HeatPanel class="heatzone" :sheet="bench.sheet" />
            <HeatReasons v-if="heat.cook" :sheet="bench.sheet" :cook="heat.cook" />
          </template>
          <template v-else>
            <ZoneSwitch v-if="phone && !beside" v-model="zone" :sheet="bench.sheet" />
            <LedgerTable
              v-if="shows('list')"
              class="listzone"
              :sheet="bench.sheet"
              :active="bench.active"
              :asked="bench.why?.line ?? bench.swapping?.line"
              :stale="!!bench.trouble"
              @pick="bench.active = $event"
              @make="making.make()" />
            <div v-if="shows('balance')" class="gauges">
              <BalanceStrip :sheet="bench.sheet" />
              <NotesStrip :sheet="bench.sheet" :open="notes" @open="toggleNotes" />
            </div>
            <WhyPanel v-if="beside === 'why'" class="beside" />
            <SwapPanel
              v-else-if="bench.swapping"
              class="beside"
              :line="bench.swapping.line"
              :label="bench.swapping.label"
              @close="bench.swapping = undefined" />
            <NotesPanel v-else-if="beside === 'notes'" class="beside" :sheet="bench.sheet" @close="notes = false" />
            <template v-else>
              <ShelfPanel v-if="!phone" ref="shelf" class="shelfzone" />
              <PortionPanel v-if="shows('portion')" class="portion" :sheet="bench.sheet" />
              <HandDock v-if="phone" @open="shelfOpen = true" />
            </template>
          </template>
        </template>
      </div>
      <el-drawer v-if="phone" v-model="shelfOpen" title="Additions" direction="ltr" size="min(340px, 92vw)" body-class="shelf-drawer"
        ><ShelfPanel ref="shelf"
      /></el-drawer>
    </template>
    <section v-else-if="bench.loaded && !signedOut" class="panel empty">
      <h1>Nothing on the bench</h1>
      <p v-if="bench.listTrouble" role="alert"><i class="sign high" /> {{ bench.listTrouble }}</p>
      <p v-else-if="bases.shelf.length">Start a variation from one of your bases, and it shows what to weigh out.</p>
      <p v-else>There is no base yet. Begin with the starter bases, or paste a recipe that you trust.</p>
      <p v-if="bases.trouble" role="alert"><i class="sign high" /> {{ bases.trouble }}</p>
      <p class="begin">
        <el-button class="go" :loading="beginning" @click="bench.listTrouble ? bench.start() : begin()">
          <Icon name="plus" />{{ bench.listTrouble ? 'Try again' : bases.shelf.length ? 'Start a variation' : 'Begin with the starter bases' }}
        </el-button>
        <router-link class="el-button" to="/bases">{{ bases.shelf.length ? 'Look at the bases' : 'Paste a recipe' }}</router-link>
      </p>
    </section>
    <p v-else-if="!signedOut" class="panel wait">Opening the bench</p>
    <VariationsDrawer v-if="ever.variations.value" v-model="variations" />
    <VersionsDialog v-if="ever.versions.value" v-model="versions" />
    <HelpDialog v-if="ever.help.value" v-model="help" :can-tour="!!bench.sheet" @tour="startTour" />
    <BenchTour v-if="touring" v-model="touring" @zone="zone = $event" />
    <PrintDialog v-if="bench.doc && ever.printing.value" v-model="printing" />
    <PullingDialog v-if="bench.doc && ever.pulling.value" v-model="pulling" />
    <ToppingsDialog v-if="bench.doc && ever.toppings.value" v-model="toppings" />
    <GuestDialog v-if="inviting" v-model="inviting" :card="bench.id" :name="bench.doc?.name" />
    <TwoSides past :conflict="bench.conflict" @settle="bench.settle" />
  </main>
</template>

<style scoped>
.work {
  display: grid;
  grid-template: auto minmax(0, 1fr) / minmax(0, 1fr);
  min-width: 0;
  min-height: 0;
}
/* Wide: the list first, in full height; the balance over what is in hand and the portion. */
.body {
  display: grid;
  grid-template:
    'trouble trouble trouble' auto
    'list gauges gauges' auto
    'list shelf portion' minmax(0, 1fr)
    'verdict verdict verdict' auto / minmax(0, 1fr) 268px 284px;
  gap: 0 10px;
  padding: 0 var(--s3) var(--s3) 0;
  min-height: 0;
}
.listzone {
  grid-area: list;
}
.gauges {
  grid-area: gauges;
  display: grid;
  gap: var(--s2);
  margin-bottom: var(--s2);
  min-width: 0;
}
.shelfzone {
  grid-area: shelf;
}
.portion {
  grid-area: portion;
}
.beside {
  grid-area: 3 / shelf / 4 / portion;
}
.verdict {
  grid-area: verdict;
  margin-top: 10px;
  min-height: 66px;
}
.heating {
  grid-template: 'heat heat reasons' minmax(0, 1fr) 'verdict verdict verdict' auto / minmax(0, 1fr) 268px 284px;
}
.heatzone {
  grid-area: heat;
}
.trouble {
  grid-area: trouble;
  display: flex;
  align-items: center;
  gap: var(--s3);
  margin-bottom: 10px;
  padding: var(--s2) var(--s4);
  border-color: var(--beet);
  background: var(--beet-wash);
}
.trouble .el-button {
  flex: none;
  margin-left: auto;
}
.begin {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s2);
}
.begin a {
  text-decoration: none;
}
.wait {
  padding: var(--s5);
  color: var(--ink-3);
  align-self: start;
}
.empty {
  margin: var(--s5);
  padding: var(--s6);
  display: grid;
  gap: var(--s3);
  justify-items: start;
  align-self: start;
}
/* Tablet: the gauges lie beside the list, what is in hand and the portion stand below; the page scrolls. */
@media (max-width: 1199px) {
  .work {
    display: block;
    overflow: hidden auto;
  }
  .body {
    grid-template:
      'trouble trouble' auto
      'list gauges' auto
      'lower lower' auto
      'verdict verdict' auto / minmax(0, 1fr) 236px;
    align-items: start;
  }
  .listzone {
    align-self: stretch;
  }
  .gauges {
    margin-bottom: 0;
  }
  .shelfzone,
  .portion,
  .beside {
    grid-area: lower;
    margin-top: 10px;
  }
  .shelfzone {
    width: min(340px, 42%);
    max-height: 560px;
  }
  .portion {
    margin-left: calc(min(340px, 42%) + 10px);
  }
  .verdict {
    position: sticky;
    bottom: 0;
    z-index: 2;
  }
  .heating {
    grid-template: 'heat' auto 'reasons' auto 'verdict' auto / minmax(0, 1fr);
    row-gap: 10px;
  }
}
@media (max-width: 900px) {
  .body {
    padding: 0 var(--s2) var(--s2);
  }
}
/* Phone: one zone at a time, with what it makes and what it contains above it. */
@media (max-width: 700px) {
  .work {
    display: grid;
    overflow: hidden;
  }
  .body {
    display: flex;
    flex-direction: column;
    align-items: stretch;
    gap: 6px;
    padding-bottom: 6px;
  }
  .body > * {
    flex: none;
    margin: 0;
  }
  .listzone,
  .gauges,
  .portion,
  .beside,
  .heatzone {
    flex: 1 1 0;
    min-height: 0;
    width: auto;
    overflow: hidden auto;
  }
  .gauges {
    align-content: start;
    overflow: hidden auto;
  }
  .verdict {
    position: relative;
    min-height: 0;
  }
  .heating {
    overflow: hidden auto;
  }
  .heating > * {
    flex: none;
  }
}
/* A phone lying down, or everything twice as large: the page scrolls, so that the list has room. */
@media (max-width: 700px) and (max-height: 620px) {
  .work {
    display: block;
    overflow: hidden auto;
  }
  .listzone,
  .gauges,
  .portion,
  .beside,
  .heatzone {
    flex: none;
    overflow: visible;
  }
}
</style>

<style>
.shelf-drawer {
  padding: 0 var(--s2) var(--s2) !important;
}
.shelf-drawer .shelf {
  height: 100%;
  border: 0;
  box-shadow: none;
}
.shelf-drawer .shelf > header {
  display: none;
}
</style>
