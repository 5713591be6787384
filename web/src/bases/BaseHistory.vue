<script setup lang="ts">
import { ask } from '@/parts/ask'
import { ref } from 'vue'
import { api, got, said, type Schemas } from '@/api/client'
import DifferenceTable from '@/parts/DifferenceTable.vue'
import Icon from '@/parts/Icon.vue'
import { savedAt } from '@/parts/figures'
import { asVariation, type Base, type Shelved } from './bases'

/** A base as it was; what is chosen is put into the editor, and saved like any other change. */
const props = defineProps<{ base: Shelved }>()
const emit = defineEmits<{ chosen: [document: Base] }>()
const shown = ref(false)
const states = ref<Schemas['State'][]>()
const looking = ref<{ state: Schemas['State']; document: Base; difference: Schemas['Comparison'] }>()
const trouble = ref('')

async function attempt(f: () => Promise<void>) {
  trouble.value = ''
  try {
    await f()
  } catch (e) {
    trouble.value = said(e)
  }
}
function open() {
  shown.value = true
  states.value = looking.value = undefined
  return attempt(async () => {
    states.value = (await got(api.GET('/bases/{id}/revisions', { params: { path: { id: props.base.id } } }))).items
  })
}
function look(state: Schemas['State']) {
  return attempt(async () => {
    const { document } = await got(api.GET('/bases/{id}/revisions/{revision}', { params: { path: { id: props.base.id, revision: state.revision } } }))
    const difference = await ask('/comparisons', { before: asVariation(document), after: asVariation(props.base.document) })
    looking.value = { state, document, difference }
  })
}
function choose() {
  if (looking.value) emit('chosen', looking.value.document)
  shown.value = false
}
</script>

<template>
  <el-button :aria-expanded="shown" @click="shown ? (shown = false) : open()"><Icon name="undo" />As it was</el-button>
  <section v-if="shown" class="base-history" :aria-label="`${base.document.name}, as it was`">
    <p v-if="trouble" role="alert"><i class="sign high" /> {{ trouble }}</p>
    <p v-else-if="!states" class="muted" role="status">Looking</p>
    <p v-else-if="states.length < 2" class="muted">It was never different. Every state that you save from now on is listed here.</p>
    <ul v-else class="rows" tabindex="0" aria-label="States">
      <li v-for="(s, i) in states" :key="s.revision" :class="{ here: looking?.state.revision === s.revision }">
        <span class="what"
          ><b>{{ savedAt(s.saved_at) }}</b
          ><small v-if="!i">as it is now</small><small v-if="s.changed">{{ s.changed.join(', ') }}</small></span
        >
        <el-button v-if="i" :aria-label="`Compare with now: ${savedAt(s.saved_at)}`" @click="look(s)">Compare with now</el-button>
      </li>
    </ul>
    <template v-if="looking">
      <DifferenceTable :then="savedAt(looking.state.saved_at)" :difference="looking.difference" />
      <el-button class="choose" @click="choose">Put it into the editor</el-button>
    </template>
  </section>
</template>

<style scoped>
.rows {
  max-height: 40vh;
  overflow-y: auto;
}
.rows > li {
  padding-inline: 0;
}
</style>
