<script setup lang="ts">
import { onMounted, onScopeDispose, ref } from 'vue'
import { say } from '@/parts/say'
import Icon from '@/parts/Icon.vue'
import { bringBack as putBack, onLanded, waits } from '@/away/outbox'
import { api, got, said, type Schemas } from '@/api/client'

/** What was put aside and can still come back. */
const items = ref<Schemas['Aside'][]>()
const trouble = ref('')
const busy = ref('')
const places: Record<Schemas['Aside']['kind'], { path: string; says: string }> = {
  variation: { path: 'variations', says: 'variation' },
  base: { path: 'bases', says: 'base' },
  pantry: { path: 'pantry', says: 'pantry' },
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
        <el-button :disabled="busy === one.id" @click="bringBack(one)"><Icon name="undo" />Bring back</el-button>
      </li>
    </ul>
  </section>
</template>

<style scoped>
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
