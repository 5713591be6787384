<script setup lang="ts">
import { computed, ref } from 'vue'
import { said } from '@/api/client'
import { useBench } from '@/bench/bench'
import { offerUndo } from '@/parts/undo'
import { elsewhere, isLocal } from './drafts'
import { flush, giveUp, letters, sendOver, type Letter } from './outbox'

/** What was done on this tablet and has not reached the kitchen, in order, each with a way out. */
const shown = defineModel<boolean>({ required: true })
const bench = useBench()
const busy = ref('')
const trouble = ref('')
const drafts = computed(() => [
  ...(bench.saveState === 'offline' && bench.doc && bench.id && !isLocal(bench.id) ? [{ id: bench.id, name: bench.doc.name }] : []),
  ...elsewhere.value,
])
async function over(l: Letter) {
  busy.value = l.key
  trouble.value = ''
  try {
    await sendOver(l)
  } catch (e) {
    trouble.value = said(e)
  }
  busy.value = ''
}
function drop(l: Letter) {
  const back = giveUp(l)
  offerUndo(`${l.what}: given up on this tablet.`, () => {
    back()
    void flush()
  })
}
</script>

<template>
  <el-dialog v-model="shown" title="Waits on this tablet" width="min(560px, 96vw)" append-to-body class="waiting">
    <p v-if="trouble" role="alert"><i class="sign high" /> {{ trouble }}</p>
    <p v-if="!letters.length && !drafts.length" class="muted">Everything is in the kitchen.</p>
    <template v-else>
      <p class="muted">It is kept here, also when this tablet is switched off, and goes to the kitchen in this order when the program is back.</p>
      <ul class="rows">
        <li v-for="d in drafts" :key="d.id" class="well">
          <span class="what"
            ><b>“{{ d.name }}”</b><small>changed</small></span
          >
        </li>
        <li v-for="l in letters" :key="l.key" class="well">
          <span class="what"
            ><b>{{ l.what }}</b
            ><small v-if="l.trouble"><i class="sign high" /> {{ l.trouble }}</small></span
          >
          <el-button v-if="l.stale" :loading="busy === l.key" @click="over(l)">Keep this tablet's</el-button>
          <el-button v-if="l.trouble" :aria-label="`Give up ${l.what}`" @click="drop(l)">Give it up</el-button>
        </li>
      </ul>
    </template>
  </el-dialog>
</template>

<style scoped>
p {
  padding-bottom: var(--s3);
}
</style>
