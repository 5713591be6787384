<script setup lang="ts">
import { computed, nextTick, ref } from 'vue'
import { api, got, Refusal, said, type ListItem } from '@/api/client'
import Icon from '@/parts/Icon.vue'
import { focusNear } from '@/parts/focus'
import { sayPutAside } from '@/parts/undo'
import { useBench } from '@/bench/bench'
import { useBases } from '@/bases/bases'
import { forms } from '@/bench/choices'
import VariationCard from './VariationCard.vue'

const shown = defineModel<boolean>({ required: true })
const bench = useBench()
const shelf = useBases()
const bases = ref<ListItem[]>([])
const baseId = ref<string>()
const name = ref('')
const trouble = ref('')
const nameTrouble = ref('')
const busy = ref(false)
const now = ref(new Date())

/** What of the list is shown: by form, and without what may hold an allergen. Nothing of it is a promise. */
const form = ref('all')
const without = ref('all')
const allergens = ref<string[]>([])
const shownForms = computed(() => forms.filter((f) => bench.list.some((v) => v.form === f.value)))
const onBase = ref('all')
const shownBases = computed(() => [...new Set(bench.list.flatMap((v) => v.picture?.base ?? []))].sort((a, b) => a.localeCompare(b)))
const order = ref<'newest' | 'name'>('newest')
const listed = computed(() => {
  const some = bench.list.filter(
    (v) =>
      (form.value === 'all' || v.form === form.value) &&
      (onBase.value === 'all' || v.picture?.base === onBase.value) &&
      (without.value === 'all' || (v.picture && !v.picture.trouble && !v.picture.suspects?.includes(without.value))),
  )
  return order.value === 'name' ? some.sort((a, b) => a.name.localeCompare(b.name)) : some
})
/** What the caution speaks of: what was left out for the allergen alone. */
const hidden = computed(() => bench.list.filter((v) => !v.picture || v.picture.trouble || v.picture.suspects?.includes(without.value)).length)
const beginning = ref(false) // the form of a new one is open
async function startNew() {
  beginning.value = true
  await nextTick()
  document.querySelector<HTMLElement>('.variations form .el-input input')?.focus()
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
  baseId.value ??= bases.value[0]?.id
  if (!allergens.value.length) {
    allergens.value = await got(api.GET('/ingredients', { params: { query: { limit: 1 } } })).then(
      (all) => all.allergens,
      () => [],
    )
  }
}

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
async function chosenBase() {
  try {
    return await got(api.GET('/bases/{id}', { params: { path: { id: baseId.value ?? '' } } }))
  } catch (e) {
    const seen = shelf.shelf.find((b) => b.id === baseId.value)
    if (e instanceof Refusal && e.status === 0 && seen) return seen
    throw e
  }
}

async function create() {
  nameTrouble.value = name.value.trim() ? '' : 'Give it a name.'
  if (nameTrouble.value) return void startNew()
  const ok = await attempt(async () => {
    const base = await chosenBase()
    const { name: baseName, form, style, school, lines, source_note, source_text, parts } = base.document
    await bench.create({
      format: 'upbeat-ladle/variation',
      version: 1,
      name: name.value.trim(),
      form,
      parts,
      base: { name: baseName, style, school, lines, source_note, source_text, base_ref: { id: base.id, revision: base.revision } },
    })
  })
  if (ok) {
    name.value = ''
    beginning.value = shown.value = false
  }
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
  <el-drawer v-model="shown" title="Variations" size="min(760px, 100%)" direction="ltr" class="variations" @open="opened">
    <p v-if="trouble" class="trouble" role="alert"><i class="sign high" />{{ trouble }}</p>
    <form v-if="beginning || !bench.list.length" class="new well" novalidate @submit.prevent="create" @keydown.esc.stop="beginning = false">
      <h3>A new variation</h3>
      <template v-if="bases.length">
        <el-input v-model="name" maxlength="200" placeholder="Its name" aria-label="Name of the new variation" :aria-invalid="!!nameTrouble" />
        <p v-if="nameTrouble" class="fault" role="alert">{{ nameTrouble }}</p>
        <el-radio-group v-model="baseId" class="bases" aria-label="Base">
          <el-radio v-for="b in bases" :key="b.id" :value="b.id"
            >{{ b.name }} <small>{{ b.verdict }}</small></el-radio
          >
        </el-radio-group>
        <p class="acts">
          <el-button native-type="submit" class="go" :disabled="busy || !baseId">Start it</el-button>
          <el-button v-if="bench.list.length" @click="beginning = false">Leave it</el-button>
        </p>
      </template>
      <p v-else class="empty">A variation stands on a base. <router-link to="/bases">Begin with a base.</router-link></p>
    </form>
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
      <el-select v-model="without" aria-label="Leave out what may hold" filterable>
        <el-option value="all" label="every allergen" /><el-option v-for="a in allergens" :key="a" :value="a" :label="`without ${a}`" />
      </el-select>
    </div>
    <p v-if="without !== 'all'" class="caution" role="status">
      <i class="sign high" />{{ hidden }} left out: what contains {{ without }}, may carry it, or is not known. Check every pack; a shared griddle,
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
  max-width: 420px;
  padding: var(--s3) var(--s4);
  margin-bottom: var(--s3);
}
.bases {
  display: grid;
  gap: 0;
}
.bases .el-radio {
  min-height: var(--touch);
  margin: 0;
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
.fault {
  color: var(--beet);
}
</style>
