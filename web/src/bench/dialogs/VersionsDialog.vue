<script setup lang="ts">
import { ask } from '@/parts/ask'
import { computed, ref, watch } from 'vue'
import Icon from '@/parts/Icon.vue'
import { api, got, said, type Schemas } from '@/api/client'
import DifferenceTable from '@/parts/DifferenceTable.vue'
import { savedAt } from '@/parts/figures'
import { sayPutAside } from '@/parts/undo'
import { useBench } from '@/bench/bench'

const shown = defineModel<boolean>({ required: true })
const bench = useBench()
const states = ref<Schemas['State'][]>()
const every = ref(false) // not only those with a name
const more = 60 // at a time
const upTo = ref(more)
const listed = computed(() => states.value?.filter((s) => every.value || s.name) ?? [])
const called = (s: Schemas['State']) => s.name || savedAt(s.saved_at)
const name = ref('')
const trouble = ref('')
const looking = ref<{ version: Schemas['State']; document: Schemas['Variation']; difference: Schemas['Comparison'] }>()

/** Runs a request and shows its sentence when it fails. */
async function attempt(f: () => Promise<void>) {
  trouble.value = ''
  try {
    await f()
  } catch (e) {
    trouble.value = said(e)
  }
}
function load() {
  return attempt(async () => {
    states.value = (await got(api.GET('/variations/{id}/revisions', { params: { path: { id: bench.id ?? '' } } }))).items
  })
}
function keep() {
  return attempt(async () => {
    await bench.save()
    await call(bench.revision, name.value)
    name.value = ''
    await load()
  })
}
/** Gives a state a name; named again, it has the new one. */
const call = (revision: number, as: string) =>
  api.POST('/variations/{id}/versions', { params: { path: { id: bench.id ?? '' } }, body: { name: as, revision } })
const naming = ref<number>() // the revision whose name is being written
const written = ref('')

watch(
  shown,
  (open) => {
    if (!open) return
    looking.value = undefined
    naming.value = undefined
    states.value = undefined
    upTo.value = more
    void load()
  },
  { immediate: true },
)

function beginNaming(v: Schemas['State']) {
  naming.value = v.revision
  written.value = v.name ?? ''
}
function rename(v: Schemas['State']) {
  return attempt(async () => {
    if (written.value.trim() !== v.name) await call(v.revision, written.value)
    naming.value = undefined
    await load()
  })
}
function forget(v: Schemas['State']) {
  const name = v.name ?? ''
  return attempt(async () => {
    await api.DELETE('/variations/{id}/versions/{revision}', { params: { path: { id: bench.id ?? '', revision: v.revision } } })
    await load()
    sayPutAside(`“${name}” is off the list.`, () =>
      attempt(async () => {
        await call(v.revision, name)
        await load()
      }),
    )
  })
}
function look(version: Schemas['State']) {
  return attempt(async () => {
    if (!bench.doc) return
    const then = await got(api.GET('/variations/{id}/revisions/{revision}', { params: { path: { id: bench.id ?? '', revision: version.revision } } }))
    const difference = await ask('/comparisons', { before: then.document, after: bench.doc })
    looking.value = { version, document: then.document, difference }
  })
}
function goBack() {
  if (looking.value) bench.bringBack(looking.value.document)
  shown.value = false
}
</script>

<template>
  <el-dialog v-model="shown" title="Versions" width="min(720px, 96vw)">
    <form class="name" novalidate @submit.prevent="keep">
      <el-input v-model="name" maxlength="200" placeholder="Name what is on the bench now" aria-label="Name of this version" />
      <el-button native-type="submit" class="go">Save it</el-button>
    </form>
    <p v-if="trouble" class="trouble" role="alert"><i class="sign high" />{{ trouble }}</p>
    <el-radio-group v-model="every" class="pick" aria-label="Which states">
      <el-radio-button :value="false">with a name</el-radio-button><el-radio-button :value="true">every saved state</el-radio-button>
    </el-radio-group>
    <p v-if="!states && !trouble" class="muted empty" role="status">Looking</p>
    <p v-else-if="!listed.length" class="muted empty">No version has a name yet. Name the one that worked, and come back to it.</p>
    <ul v-else class="rows" tabindex="0" aria-label="States">
      <li v-for="(v, i) in listed.slice(0, upTo)" :key="v.revision" class="well" :class="{ here: looking?.version.revision === v.revision }">
        <form v-if="naming === v.revision" class="naming" novalidate @submit.prevent="rename(v)" @keydown.esc.stop="naming = undefined">
          <el-input v-model="written" maxlength="200" autofocus :aria-label="`Name of “${called(v)}”`" />
          <el-button native-type="submit">{{ v.name ? 'Rename it' : 'Name it' }}</el-button>
          <el-button @click="naming = undefined">Leave it</el-button>
        </form>
        <template v-else>
          <b>{{ called(v) }}</b><small v-if="v.name">{{ savedAt(v.saved_at) }}</small
          ><small v-if="every && !i">as it is now</small>
          <small v-if="every && v.changed" class="did">{{ v.changed.join(', ') }}</small>
          <el-button v-if="!every || i" :aria-label="`Compare with now: “${called(v)}”`" @click="look(v)">Compare with now</el-button>
          <el-button :aria-label="`${v.name ? 'Rename' : 'Name it:'} “${called(v)}”`" @click="beginNaming(v)">{{
            v.name ? 'Rename' : 'Name it'
          }}</el-button>
          <el-button v-if="v.name && !every" class="ghost" :aria-label="`Take “${v.name}” off the list`" @click="forget(v)"
            ><Icon name="bin" :size="18"
          /></el-button>
        </template>
      </li>
    </ul>
    <p v-if="listed.length > upTo" class="empty"><el-button @click="upTo += more">Show earlier ones</el-button></p>
    <template v-if="looking">
      <DifferenceTable :then="called(looking.version)" :difference="looking.difference" />
      <el-button @click="goBack">Go back to “{{ called(looking.version) }}”</el-button>
    </template>
  </el-dialog>
</template>

<style scoped>
.name {
  display: flex;
  gap: var(--s2);
  margin-bottom: var(--s3);
}
.naming {
  display: flex;
  flex: 1;
  flex-wrap: wrap;
  gap: var(--s2);
}
.naming .el-input {
  flex: 1 1 200px;
}
.pick {
  margin-bottom: var(--s2);
}
.rows {
  max-height: 40vh;
  overflow-y: auto;
}
.rows > li {
  flex-wrap: wrap;
}
.did {
  order: 1;
  flex: 1 0 100%;
  overflow-wrap: anywhere;
}
li b {
  flex: 1 1 160px;
  overflow-wrap: anywhere;
}
small {
  color: var(--ink-2);
  font-size: var(--t-mini);
}
.trouble {
  color: var(--beet);
  display: flex;
  gap: var(--s2);
  align-items: center;
  padding-bottom: var(--s2);
}
.empty {
  padding: var(--s4) 0;
}
</style>
