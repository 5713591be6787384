<script setup lang="ts">
import { onMounted, onScopeDispose, ref } from 'vue'
import { ElMessageBox } from 'element-plus'
import 'element-plus/es/components/message-box/style/css'
import { say } from '@/parts/say'
import Icon from '@/parts/Icon.vue'
import { bringBack as putBack, onLanded, waits } from '@/away/outbox'
import { api, got, said, type Schemas } from '@/api/client'

/** What was put aside and can still come back. */
const items = ref<Schemas['Aside'][]>()
const trouble = ref('')
const busy = ref('')
const places: Record<
  Schemas['Aside']['kind'],
  { path: 'variations' | 'bases' | 'pantry' | 'batches' | 'boards' | 'packs' | 'sauces'; says: string }
> = {
  variation: { path: 'variations', says: 'variation' },
  base: { path: 'bases', says: 'base' },
  pantry: { path: 'pantry', says: 'pantry' },
  batch: { path: 'batches', says: 'sheet' },
  board: { path: 'boards', says: 'board' },
  sauce: { path: 'sauces', says: 'sauce' },
  pack: { path: 'packs', says: 'pack in the freezer' },
}
const day = (at: string) => new Date(at).toLocaleDateString('en-GB', { day: 'numeric', month: 'short' })

async function load() {
  trouble.value = ''
  try {
    items.value = (await got(api.GET('/bin'))).items
  } catch (e) {
    trouble.value = said(e)
  }
}
const shown = ref<Schemas['LookedAside']>()
async function look(one: Schemas['Aside']) {
  busy.value = one.id
  try {
    shown.value = await got(api.GET('/bin/{kind}/{id}', { params: { path: { kind: places[one.kind].path, id: one.id } } }))
    trouble.value = ''
  } catch (e) {
    trouble.value = said(e)
  }
  busy.value = ''
}
async function purge(one: Schemas['Aside']) {
  const sure = await ElMessageBox.confirm(`“${one.name}” and what it was before cannot be brought back then.`, 'Take it away for good?', {
    confirmButtonText: 'Take it away',
    cancelButtonText: 'Leave it here',
    confirmButtonClass: 'go',
    confirmButtonType: '',
  }).catch(() => false)
  if (!sure) return
  try {
    await api.DELETE('/bin/{kind}/{id}', { params: { path: { kind: places[one.kind].path, id: one.id } } })
    await load()
  } catch (e) {
    trouble.value = said(e)
  }
}
async function bringBack(one: Schemas['Aside']) {
  busy.value = one.id
  try {
    const { landed } = await putBack(`/${places[one.kind].path}/${one.id}`, one.name)
    say({ message: landed ? `${one.name} is back.` : waits(one.name), duration: 4000 })
    if (landed) await load()
  } catch (e) {
    trouble.value = said(e)
  }
  busy.value = ''
}
onMounted(load)
onScopeDispose(onLanded((l) => l.path.endsWith('/restore') && load()))
</script>

<template>
  <section class="panel put-aside">
    <header><h2>Put aside</h2></header>
    <p v-if="trouble" class="none" role="alert"><i class="sign high" />{{ trouble }} <el-button @click="load">Try again</el-button></p>
    <p v-else-if="!items" class="none">Looking …</p>
    <p v-else-if="!items.length" class="none">Nothing is put aside. What you put aside can come back for a month.</p>
    <ul v-else class="rows">
      <li v-for="one in items" :key="one.id" class="well">
        <span class="what"
          ><b>{{ one.name }}</b
          ><small>{{ places[one.kind].says }}, put aside {{ day(one.put_aside_at) }}, can be brought back until {{ day(one.until) }}</small></span
        >
        <el-button v-if="one.kind !== 'pantry'" :disabled="busy === one.id" :aria-label="`Look at ${one.name}`" @click="look(one)">Look</el-button>
        <el-button class="back" :disabled="busy === one.id" :aria-label="`Bring back ${one.name}`" @click="bringBack(one)"
          ><Icon name="undo" />Bring back</el-button
        >
        <el-button class="ghost" :disabled="busy === one.id" :aria-label="`Take ${one.name} away for good`" @click="purge(one)"
          ><Icon name="bin"
        /></el-button>
      </li>
    </ul>
    <el-dialog
      :model-value="!!shown"
      :title="shown?.name"
      width="min(560px, 96vw)"
      append-to-body
      class="looked-aside"
      @update:model-value="shown = undefined">
      <pre tabindex="0" :aria-label="`What ${shown?.name} is`">{{ shown?.text }}</pre>
    </el-dialog>
  </section>
</template>

<style scoped>
.rows > li {
  flex-wrap: wrap;
}
pre {
  margin: 0;
  max-height: 60vh;
  overflow: auto;
  white-space: pre-wrap;
  overflow-wrap: anywhere;
  font: inherit;
}
.rows {
  padding: var(--s3);
  max-height: 320px;
  overflow-y: auto;
}
.none {
  padding: 0 var(--s4) var(--s3);
  color: var(--ink-2);
}
</style>
