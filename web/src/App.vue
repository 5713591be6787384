<script setup lang="ts">
import { computed, onMounted, ref, watch } from 'vue'
import { useEventListener, useMutationObserver, useTitle } from '@vueuse/core'
import { useRoute } from 'vue-router'
import { useBench } from './bench/bench'
import { signedOut } from './api/client'
import { flush } from './away/outbox'
import Rail from './parts/Rail.vue'
import { useTakeBack } from './parts/takeBack'
import { useEverOpen } from '@/parts/everOpen'
import { later } from '@/parts/later'

const GoDialog = later(() => import('./find/GoDialog.vue'))

const finding = ref(false)
const everFinding = useEverOpen(finding)
useEventListener(window, 'keydown', (e: KeyboardEvent) => {
  if (!(e.ctrlKey || e.metaKey) || e.altKey || e.key.toLowerCase() !== 'k') return
  e.preventDefault()
  finding.value = true
})
const waiting = ref(false)
const WaitingDialog = later(() => import('./away/WaitingDialog.vue'))
const SignIn = later(() => import('./house/SignIn.vue'))
const asked = ref(false) // for the passcode, once
watch(signedOut, (out) => {
  asked.value ||= out
  if (!out) void flush()
})
onMounted(flush)
useTakeBack()

/** Menus and lists open outside the work; whoever listens is told what they are. */
useMutationObserver(
  document.body,
  () => {
    for (const e of document.querySelectorAll('body > [id^="el-popper-container"]:not([role])')) {
      e.setAttribute('role', 'region')
      e.setAttribute('aria-label', 'Menus and lists')
    }
  },
  { childList: true },
)

/** The window is called by what is open. */
const route = useRoute()
const bench = useBench()
useTitle(
  computed(() => {
    const area = route.meta.title as string | undefined
    return `${(area === 'Bench' && bench.doc?.name) || area || ''} · Upbeat Ladle`.replace(/^ · /, '')
  }),
)

/** Past the rail, for who comes by the keyboard. */
const skip = () => document.getElementById('work')?.focus()
</script>

<template>
  <router-view v-if="route.meta.guest" />
  <div v-else-if="route.name" class="app">
    <a class="skip" href="#work" @click.prevent="skip">To the work</a>
    <Rail @find="finding = true" @waiting="waiting = true" />
    <router-view />
    <GoDialog v-if="everFinding" v-model="finding" />
    <WaitingDialog v-if="waiting" v-model="waiting" />
    <SignIn v-if="asked" />
  </div>
</template>

<style scoped>
.skip {
  position: fixed;
  left: var(--s2);
  top: -80px;
  z-index: 3000;
  display: grid;
  place-items: center;
  min-height: var(--touch);
  padding: 0 var(--s4);
  border-radius: var(--r-ctl);
  background: var(--yolk);
  color: var(--on-yolk);
  font-weight: 700;
}
.skip:focus {
  top: var(--s2);
}
.app {
  display: grid;
  grid-template-columns: 78px minmax(0, 1fr);
  height: 100dvh;
}
@media (max-width: 900px) {
  .app {
    grid-template: minmax(0, 1fr) 64px / minmax(0, 1fr);
  }
}
</style>
