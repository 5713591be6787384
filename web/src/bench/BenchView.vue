<script setup lang="ts">
import { onMounted, ref } from 'vue'
import { useMediaQuery } from '@vueuse/core'
import { useKitchen } from '@/kitchen/kitchen'
import Icon from '@/parts/Icon.vue'
import { useBench } from './bench'
import BalanceStrip from '@/bench/balance/BalanceStrip.vue'
import ConflictDialog from '@/bench/dialogs/ConflictDialog.vue'
import KeysDialog from '@/bench/dialogs/KeysDialog.vue'
import LedgerTable from '@/bench/ledger/LedgerTable.vue'
import HeatPanel from '@/bench/heat/HeatPanel.vue'
import HeatReasons from '@/bench/heat/HeatReasons.vue'
import { useHeat } from '@/bench/heat/heat'
import PortionPanel from '@/bench/portion/PortionPanel.vue'
import ShelfPanel from '@/bench/shelf/ShelfPanel.vue'
import TopBar from './TopBar.vue'
import VariationsDrawer from '@/bench/dialogs/VariationsDrawer.vue'
import VerdictLine from './VerdictLine.vue'
import VersionsDialog from '@/bench/dialogs/VersionsDialog.vue'
import WhyDialog from '@/bench/dialogs/WhyDialog.vue'
import { useBenchKeys } from './useBenchKeys'

const bench = useBench()
const kitchen = useKitchen()
const heat = useHeat()
const narrow = useMediaQuery('(max-width: 900px)')
const shelf = ref<InstanceType<typeof ShelfPanel>>()
const shelfOpen = ref(false)
const variations = ref(false)
const keys = ref(false)
const versions = ref(false)

function find() {
  if (narrow.value) shelfOpen.value = true
  setTimeout(() => shelf.value?.focusFind())
}

useBenchKeys(bench, { find, variations: () => (variations.value = true), keys: () => (keys.value = true), heat: () => (heat.open = !heat.open) })
onMounted(() => {
  void kitchen.load()
  void bench.start()
})
</script>

<template>
  <main class="work">
    <template v-if="bench.doc">
      <TopBar @variations="variations = true" @versions="versions = true" @keys="keys = true" />
      <div class="body">
        <HeatPanel v-if="heat.open && bench.sheet" class="heatzone" :sheet="bench.sheet" />
        <ShelfPanel v-else-if="!narrow" ref="shelf" class="shelf" />
        <template v-else>
          <el-button class="tab" @click="shelfOpen = true">Shelf, {{ bench.shelf.length }} in the bowl</el-button>
          <el-drawer v-model="shelfOpen" title="Shelf" direction="ltr" size="320px" :with-header="false" body-class="shelf-drawer"
            ><ShelfPanel ref="shelf"
          /></el-drawer>
        </template>
        <div v-if="!heat.open || !bench.sheet" class="centre">
          <p v-if="bench.trouble" class="panel trouble" role="alert">
            <i class="sign high" /><span>{{ bench.trouble }} <template v-if="bench.sheet">The figures below are the last good ones.</template></span>
            <el-button @click="bench.work">Try again</el-button>
          </p>
          <template v-if="bench.sheet">
            <BalanceStrip :sheet="bench.sheet" />
            <LedgerTable :sheet="bench.sheet" :active="bench.active" :stale="!!bench.trouble" @pick="bench.active = $event" />
          </template>
          <p v-else-if="!bench.trouble" class="panel wait">Working it out</p>
        </div>
        <HeatReasons v-if="heat.open && bench.sheet && heat.cook" :sheet="bench.sheet" :cook="heat.cook" />
        <PortionPanel v-else-if="bench.sheet" class="portion" :sheet="bench.sheet" />
        <VerdictLine v-if="bench.sheet" class="verdict" :sheet="bench.sheet" />
      </div>
    </template>
    <section v-else-if="bench.loaded" class="panel empty">
      <h1>Nothing on the bench</h1>
      <p v-if="bench.listTrouble" role="alert"><i class="sign high" /> {{ bench.listTrouble }}</p>
      <p v-else>
        Start a variation from one of your bases, and it shows what to weigh out. No base yet?
        <router-link to="/bases">Paste a recipe, or put the starter shelf up.</router-link>
      </p>
      <el-button class="go" @click="bench.listTrouble ? bench.start() : (variations = true)">
        <Icon name="plus" />{{ bench.listTrouble ? 'Try again' : 'Start a variation' }}
      </el-button>
    </section>
    <p v-else class="panel wait">Opening the bench</p>
    <VariationsDrawer v-model="variations" />
    <VersionsDialog v-model="versions" />
    <WhyDialog />
    <KeysDialog v-model="keys" />
    <ConflictDialog />
  </main>
</template>

<style scoped>
.work {
  display: grid;
  grid-template: auto minmax(0, 1fr) / minmax(0, 1fr);
  min-width: 0;
  min-height: 0;
}
.body {
  display: grid;
  grid-template: minmax(0, 1fr) auto / 268px minmax(0, 1fr) 284px;
  gap: 10px;
  padding: 0 var(--s3) var(--s3) 0;
  min-height: 0;
}
.heatzone {
  grid-column: span 2;
}
.centre {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  gap: 10px;
  min-height: 0;
  min-width: 0;
}
.centre:has(> .trouble) {
  grid-template-rows: auto auto minmax(0, 1fr);
}
.verdict {
  grid-column: 1 / -1;
  min-height: 66px;
}
.trouble {
  display: flex;
  align-items: center;
  gap: var(--s3);
  padding: var(--s2) var(--s4);
  border-color: var(--beet);
  background: var(--beet-wash);
}
.trouble .el-button {
  margin-left: auto;
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
/* Wide: the list first, in full height; the balance over what is in hand and the portion. */
@media (min-width: 1200px) {
  .body:not(:has(.heatzone)) {
    grid-template:
      'list balance balance' auto 'list shelf portion' minmax(0, 1fr)
      'verdict verdict verdict' auto / minmax(0, 1fr) 268px 284px;
    row-gap: 10px;
  }
  .body:not(:has(.heatzone)) > .centre {
    display: contents;
  }
  .body:has(> .centre > .trouble) {
    grid-template:
      'trouble trouble trouble' auto 'list balance balance' auto 'list shelf portion' minmax(0, 1fr)
      'verdict verdict verdict' auto / minmax(0, 1fr) 268px 284px !important;
  }
  .body:not(:has(.heatzone)) > .centre > .trouble {
    grid-area: trouble;
  }
  .body:not(:has(.heatzone)) > .centre > .ledger {
    grid-area: list;
  }
  .body:not(:has(.heatzone)) > .centre > .balance {
    grid-area: balance;
  }
  .body:not(:has(.heatzone)) > .shelf {
    grid-area: shelf;
  }
  .body:not(:has(.heatzone)) > .portion {
    grid-area: portion;
  }
  .body:not(:has(.heatzone)) > .verdict {
    grid-area: verdict;
  }
}
@media (max-width: 900px) {
  .work {
    overflow: hidden auto;
    grid-template: auto auto / minmax(0, 1fr);
  }
  .body {
    display: flex;
    flex-direction: column;
    padding: 0 var(--s3) var(--s3);
  }
  .body > *,
  .centre > * {
    flex: none;
  }
  .tab {
    align-self: start;
  }
  .centre {
    display: flex;
    flex-direction: column;
  }
  .verdict {
    position: sticky;
    bottom: 0;
    min-height: 0;
    z-index: 2;
  }
}
@media (max-width: 560px) {
  .verdict {
    position: static;
  }
}
</style>

<style>
.shelf-drawer {
  padding: var(--s2) !important;
}
.shelf-drawer .shelf {
  height: 100%;
}
</style>
