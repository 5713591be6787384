<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import { useIntervalFn, useMediaQuery, useTitle } from '@vueuse/core'
import { useRoute } from 'vue-router'
import { api, got, said, type Schemas } from '@/api/client'
import PrintCard from '@/bench/print/PrintCard.vue'
import { useCatchUp } from '@/parts/catchUp'

/** One card for whoever has its link: to read, and to print. It is looked at anew now and then. */
const againMs = 60_000
const route = useRoute()
const card = ref<Schemas['GuestCard']>()
const trouble = ref<string>()
const at = ref('')
const wide = useMediaQuery('(min-width: 760px)')
async function load() {
  try {
    card.value = await got(api.GET('/guests/{token}', { params: { path: { token: String(route.params.token) } } }))
    at.value = 'as of ' + new Date().toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' })
    trouble.value = undefined
  } catch (e) {
    trouble.value = said(e)
  }
}
onMounted(load)
useIntervalFn(() => void load(), againMs)
useCatchUp(trouble, load)
useTitle(computed(() => `${card.value?.document.name ?? 'Card'} · Upbeat Ladle`))
</script>

<template>
  <main id="work" tabindex="-1" class="guest">
    <p v-if="trouble" class="panel trouble" role="alert"><i class="sign high" /> {{ trouble }}</p>
    <p v-else-if="!card" class="muted" role="status">Coming</p>
    <div v-if="card" class="sheet">
      <PrintCard
        :kind="wide ? 'batch' : 'variation'"
        :doc="card.document"
        :sheet="card.worksheet"
        :heat="card.worksheet"
        :kitchen="card.kitchen"
        :cups="card.units === 'cups'"
        :at="at" />
    </div>
  </main>
</template>

<style scoped>
.guest {
  height: 100dvh;
  overflow-y: auto;
  display: grid;
  justify-content: center;
  align-content: start;
  gap: var(--s3);
  padding: var(--s4) var(--s2);
}
.guest .sheet {
  display: block;
  padding: 6mm;
  background: #fff;
  border: 2px solid var(--rim);
  border-radius: var(--r-panel);
}
.trouble {
  padding: var(--s4);
}
/* On a screen it is read at arm's length: what is 7.5 pt on paper is as large as anywhere else. */
@media screen {
  .guest :deep(.paper) {
    zoom: 1.36;
  }
  .guest :deep(.variation) {
    width: auto;
  }
  .guest :deep(.variation .out small) {
    font-size: inherit;
  }
}
@media screen and (max-width: 759px) {
  .guest {
    grid-template-columns: minmax(0, 1fr);
    justify-content: stretch;
  }
  .guest .sheet {
    padding: 3mm;
  }
  .guest :deep(.one) {
    float: none;
    width: 60%;
    margin: 0 auto 2mm;
  }
}
@media print {
  .guest {
    height: auto;
    padding: 0;
  }
  .guest .sheet {
    border: 0;
    padding: 0;
  }
  .trouble {
    display: none;
  }
}
</style>
