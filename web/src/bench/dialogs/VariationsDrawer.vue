<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue'
import { api, got, Refusal, said, type ListItem } from '@/api/client'
import Icon from '@/parts/Icon.vue'
import { focusNear } from '@/parts/focus'
import { sayPutAside } from '@/parts/undo'
import { useBench } from '@/bench/bench'
import { useBases } from '@/bases/bases'
import { forms } from '@/bench/choices'
import { useRouter } from 'vue-router'
import VariationCard from './VariationCard.vue'

const shown = defineModel<boolean>({ required: true })
const bench = useBench()
const router = useRouter()
const shelf = useBases()
const bases = ref<ListItem[]>([])
const trouble = ref('')
const busy = ref(false)
const now = ref(new Date())

/** What of the list is shown: by form, and without what may hold an allergen. Nothing of it is a promise. */
const form = ref('all')
const without = ref<string[]>([])
const allergens = ref<string[]>([])
const shownForms = computed(() => forms.filter((f) => bench.list.some((v) => v.form === f.value)))
const onBase = ref('all')
const shownBases = computed(() => [...new Set(bench.list.flatMap((v) => v.picture?.base ?? []))].sort((a, b) => a.localeCompare(b)))
const order = ref<'newest' | 'name'>('newest')
/** What is not known may hold anything. */
const mayHold = (v: ListItem) =>
  without.value.length > 0 && (!v.picture || !!v.picture.trouble || !!v.picture.suspects?.some((a) => without.value.includes(a)))
const listed = computed(() => {
  const some = bench.list.filter(
    (v) => (form.value === 'all' || v.form === form.value) && (onBase.value === 'all' || v.picture?.base === onBase.value) && !mayHold(v),
  )
  return order.value === 'name' ? some.sort((a, b) => a.name.localeCompare(b.name)) : some
})
/** What the caution speaks of: what was left out for the allergen alone. */
const hidden = computed(() => bench.list.filter(mayHold).length)
const spoken = computed(() => new Intl.ListFormat('en', { type: 'disjunction' }).format(without.value))
const beginning = ref(false) // the form of a new one is open
async function startNew() {
  beginning.value = true
  await nextTick()
  document.querySelector<HTMLElement>('.variations .new button')?.focus()
}

async function opened() {
  now.value = new Date()
  trouble.value = ''
  await bench.refreshList()
  try {
    bases.value = (await got(api.GET('/bases', { params: { query: { limit: 200 } } }))).items
  } catch (e) {
    trouble.value = said(e)
    // While the program is away one can be begun on what was seen of the bases.
    bases.value = shelf.shelf.map((b) => ({
      id: b.id,
      name: b.document.name,
      form: b.document.form,
      revision: b.revision,
      updated_at: '',
      verdict: '',
    }))
  }
  if (!allergens.value.length) {
    allergens.value = await got(api.GET('/ingredients', { params: { query: { limit: 1 } } })).then(
      (all) => all.allergens,
      () => [],
    )
  }
}

watch(shown, (open) => open && void opened(), { immediate: true })

async function attempt(f: () => Promise<unknown>) {
  busy.value = true
  try {
    await f()
    trouble.value = ''
    return true
  } catch (e) {
    trouble.value = said(e)
    return false
  } finally {
    busy.value = false
  }
}

async function open(id: string) {
  if (await attempt(() => bench.open(id))) shown.value = false
}

async function duplicate(v: ListItem) {
  if (await attempt(() => bench.duplicate(v.id))) shown.value = false
}

/** As it is now; while the program is away, as it was seen. */
async function chosen(id: string) {
  try {
    return await got(api.GET('/bases/{id}', { params: { path: { id } } }))
  } catch (e) {
    const seen = shelf.shelf.find((b) => b.id === id)
    if (e instanceof Refusal && e.status === 0 && seen) return seen
    throw e
  }
}

async function begin(id: string) {
  if (await attempt(async () => bench.begin(await chosen(id)))) beginning.value = shown.value = false
}
/** A recipe that is there already is read instead. */
function paste() {
  beginning.value = shown.value = false
  void router.push({ path: '/bases', query: { read: '1' } })
}

async function remove(v: ListItem) {
  const at = bench.list.findIndex((x) => x.id === v.id)
  const ok = await attempt(async () => {
    const bringBack = await bench.remove(v.id)
    sayPutAside(`${v.name} is put aside.`, bringBack)
  })
  if (ok) void focusNear('.variations .list .open', at, '.variations .filters .go')
}
</script>

<template>
  <el-drawer v-model="shown" title="Variations" size="min(760px, 100%)" direction="ltr" class="variations">
    <p v-if="trouble" class="trouble" role="alert"><i class="sign high" />{{ trouble }}</p>
    <section v-if="beginning || !bench.list.length" class="new well" aria-label="A new variation" @keydown.esc.stop="beginning = false">
      <h3>On which base?</h3>
      <template v-if="bases.length">
        <p class="muted">It opens at once, and is called by what goes into it until you name it.</p>
        <ul class="bases">
          <li v-for="b in bases" :key="b.id">
            <el-button :disabled="busy" @click="begin(b.id)"
              ><b>{{ b.name }}</b
              ><small>{{ b.verdict }}</small></el-button
            >
          </li>
        </ul>
      </template>
      <p v-else class="empty">A variation stands on a base. <router-link to="/bases">Begin with a base.</router-link></p>
      <p class="acts">
        <el-button @click="paste">Paste a recipe instead</el-button>
        <el-button v-if="bench.list.length" @click="beginning = false">Leave it</el-button>
      </p>
    </section>
    <div v-if="bench.list.length" class="filters">
      <el-button v-if="!beginning" class="go" @click="startNew"><Icon name="plus" />New</el-button>
      <el-select v-model="order" aria-label="In which order">
        <el-option value="newest" label="changed last first" /><el-option value="name" label="by name" />
      </el-select>
      <el-select v-model="form" aria-label="Which form">
        <el-option value="all" label="every form" /><el-option v-for="f in shownForms" :key="f.value" :value="f.value" :label="f.many" />
      </el-select>
      <el-select v-if="shownBases.length > 1" v-model="onBase" aria-label="On which base" filterable>
        <el-option value="all" label="every base" /><el-option v-for="b in shownBases" :key="b" :value="b" :label="`on ${b}`" />
      </el-select>
      <el-select
        v-model="without"
        class="without"
        aria-label="Leave out what may hold"
        placeholder="any allergen"
        multiple
        collapse-tags
        :max-collapse-tags="2"
        default-first-option
        :reserve-keyword="false"
        filterable>
        <el-option v-for="a in allergens" :key="a" :value="a" :label="`without ${a}`" />
      </el-select>
    </div>
    <p v-if="without.length" class="caution" role="status">
      <i class="sign high" />{{ hidden }} left out: what contains {{ spoken }}, may carry it, or is not known. Check every pack; a shared griddle,
      iron or ladle carries it over.
    </p>
    <p v-if="bench.list.length && !listed.length" class="empty">None of your variations is left.</p>
    <ul v-if="listed.length" class="list">
      <VariationCard
        v-for="v in listed"
        :key="v.id"
        :card="v"
        :here="v.id === bench.id"
        :busy="busy"
        :now="now"
        @open="open(v.id)"
        @duplicate="duplicate(v)"
        @remove="remove(v)" />
    </ul>
    <p v-else-if="!bench.list.length" class="empty">No variation yet. Choose a base, name it, and start.</p>
  </el-drawer>
</template>

<style scoped>
.filters {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s2);
  padding-bottom: var(--s2);
}
.filters .el-select {
  flex: 1 1 136px;
  max-width: 220px;
}
.filters .without {
  flex-basis: 200px;
  max-width: 320px;
}
.caution {
  display: flex;
  gap: var(--s2);
  align-items: baseline;
  padding: var(--s2) var(--s3);
  margin-bottom: var(--s2);
  border-radius: var(--r-well);
  background: var(--beet-wash);
  color: var(--beet);
}
.list {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(340px, 100%), 1fr));
  gap: var(--s2);
}
.new {
  display: grid;
  gap: var(--s2);
  max-width: 520px;
  padding: var(--s3) var(--s4);
  margin-bottom: var(--s3);
}
.bases {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: var(--s1);
}
.bases .el-button {
  width: 100%;
  height: auto;
  min-height: var(--touch);
  padding: var(--s2) var(--s3);
  white-space: normal;
  text-align: left;
  justify-content: flex-start;
}
.bases .el-button > :deep(span) {
  display: grid;
  justify-items: start;
  overflow-wrap: anywhere;
}
.bases small {
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
  color: var(--ink-2);
  padding: var(--s3) 0;
}
</style>
