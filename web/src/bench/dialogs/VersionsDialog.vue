<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import Icon from '@/parts/Icon.vue'
import { api, got, said, type Schemas } from '@/api/client'
import { figure, onStep } from '@/parts/figures'
import { sayPutAside } from '@/parts/undo'
import { useBench } from '@/bench/bench'

const shown = defineModel<boolean>({ required: true })
const bench = useBench()
const states = ref<Schemas['State'][]>()
const every = ref(false) // not only those with a name
const more = 60 // at a time
const upTo = ref(more)
const listed = computed(() => states.value?.filter((s) => every.value || s.name) ?? [])
const when = (at: string) =>
  new Date(at).toLocaleString('en-GB', { weekday: 'short', day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' })
const called = (s: Schemas['State']) => s.name || when(s.saved_at)
const name = ref('')
const trouble = ref('')
const looking = ref<{ version: Schemas['State']; document: Schemas['Variation']; difference: Schemas['Comparison'] }>()
const words: Record<Schemas['ComparedLine']['change'], string> = { same: 'as then', more: 'more now', less: 'less now', new: 'new', gone: 'gone' }

watch(shown, (open) => {
  if (!open) return
  looking.value = undefined
  naming.value = undefined
  states.value = undefined
  upTo.value = more
  void load()
})

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
    const difference = await got(api.POST('/comparisons', { body: { before: then.document, after: bench.doc } }))
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
          <b>{{ called(v) }}</b><small v-if="v.name">{{ when(v.saved_at) }}</small
          ><small v-if="every && !i">as it is now</small>
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
      <table>
        <thead>
          <tr>
            <th scope="col">{{ called(looking.version) }}, against now</th>
            <th scope="col">then</th>
            <th scope="col">now</th>
            <th scope="col" />
          </tr>
        </thead>
        <tbody>
          <tr v-for="(l, i) in looking.difference.lines" :key="i" :class="l.change" :data-change="l.change">
            <th scope="row">{{ l.label }}</th>
            <td>{{ l.before_g === undefined ? '' : `${onStep(l.before_g, l.decimals)} g` }}</td>
            <td>{{ l.after_g === undefined ? '' : `${onStep(l.after_g, l.decimals)} g` }}</td>
            <td class="word">{{ words[l.change] }}</td>
          </tr>
          <tr v-for="g in looking.difference.gauges" :key="g.label" class="gauge">
            <th scope="row">{{ g.label }}</th>
            <td>{{ g.before === undefined ? '' : figure(g.before, g.decimals) }}</td>
            <td>{{ g.after === undefined ? '' : figure(g.after, g.decimals) }}</td>
            <td class="word">{{ g.unit }}</td>
          </tr>
        </tbody>
      </table>
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
li b {
  flex: 1 1 160px;
  overflow-wrap: anywhere;
}
small {
  color: var(--ink-2);
  font-size: var(--t-mini);
}
table {
  border-collapse: collapse;
  width: 100%;
  margin: var(--s4) 0;
}
th,
td {
  border-top: 1px solid var(--hair);
  padding: 6px 4px;
  text-align: right;
}
th:first-child {
  text-align: left;
}
thead th {
  border: 0;
  color: var(--ink-2);
  font-size: var(--t-mini);
  font-weight: 500;
}
tbody th {
  font-weight: 600;
}
.word {
  text-align: left;
  color: var(--ink-2);
  padding-left: var(--s3);
}
tr:not(.same, .gauge) td,
tr:not(.same, .gauge) th {
  background: var(--yolk-wash);
  font-weight: 700;
}
.gauge th {
  font-weight: 450;
  color: var(--ink-2);
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
