<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { api, got, said, type ListItem } from '@/api/client'
import Icon from '@/parts/Icon.vue'
import AllergenLine from '@/parts/AllergenLine.vue'
import PortionDisc from '@/parts/PortionDisc.vue'
import ExportMenu from '@/parts/ExportMenu.vue'
import { ago, unbroken } from '@/parts/figures'
import { focusNear } from '@/parts/focus'
import { sayPutAside } from '@/parts/undo'
import { useBench } from '@/bench/bench'
import { forms } from '@/bench/choices'

const shown = defineModel<boolean>({ required: true })
const bench = useBench()
const bases = ref<ListItem[]>([])
const baseId = ref<string>()
const name = ref('')
const trouble = ref('')
const busy = ref(false)
const now = ref(new Date())

/** What of the list is shown: by form, and without what may hold an allergen. Nothing of it is a promise. */
const form = ref('all')
const without = ref('all')
const allergens = ref<string[]>([])
const shownForms = computed(() => forms.filter((f) => bench.list.some((v) => v.form === f.value)))
const listed = computed(() =>
  bench.list.filter(
    (v) =>
      (form.value === 'all' || v.form === form.value) &&
      (without.value === 'all' || (v.picture && !v.picture.trouble && !v.picture.suspects?.includes(without.value))),
  ),
)
const hidden = computed(() => bench.list.length - listed.value.length)
function startNew() {
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

async function create() {
  if (!name.value.trim()) {
    trouble.value = 'Give the new variation a name.'
    return
  }
  const ok = await attempt(async () => {
    const base = await got(api.GET('/bases/{id}', { params: { path: { id: baseId.value ?? '' } } }))
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
    shown.value = false
  }
}

async function remove(v: ListItem) {
  const at = bench.list.findIndex((x) => x.id === v.id)
  leaving.add(v.id)
  const ok = await attempt(async () => {
    const bringBack = await bench.remove(v.id)
    sayPutAside(`${v.name} is put aside.`, bringBack)
  })
  leaving.delete(v.id)
  if (ok) void focusNear('.variations .list .open', at, '.variations form input')
}

/** How hot and how long stands on a card a moment later: one is worked out after the other while the drawer is open. */
const heats = ref(new Map<string, string>())
const leaving = new Set<string>() // what is being put aside is not asked for
const heatKey = (v: { id: string; revision: number }) => `${v.id}:${v.revision}`
watch([shown, () => bench.list], async () => {
  const list = bench.list
  for (const v of list) {
    if (!shown.value || bench.list !== list) return
    if (leaving.has(v.id)) continue
    if (v.picture?.trouble || heats.value.has(heatKey(v))) continue
    heats.value.set(heatKey(v), '')
    try {
      const { document } = await got(api.GET('/variations/{id}', { params: { path: { id: v.id } } }))
      const sheet = await got(api.POST('/worksheets', { body: document, params: { query: { include: 'heat_line' } } }))
      heats.value.set(heatKey(v), sheet.cook?.lead ?? '')
    } catch {
      heats.value.delete(heatKey(v)) // it is asked again when the drawer opens
      return
    }
  }
})
</script>

<template>
  <el-drawer v-model="shown" title="Variations" size="min(760px, 100%)" direction="ltr" class="variations" @open="opened">
    <p v-if="trouble" class="trouble" role="alert"><i class="sign high" />{{ trouble }}</p>
    <div v-if="bench.list.length" class="filters">
      <el-button class="go" @click="startNew"><Icon name="plus" />New</el-button>
      <el-select v-model="form" aria-label="Which form">
        <el-option value="all" label="every form" /><el-option v-for="f in shownForms" :key="f.value" :value="f.value" :label="f.many" />
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
      <li v-for="v in listed" :key="v.id" class="well" :class="{ here: v.id === bench.id }">
        <button type="button" class="open" :disabled="busy" :data-card="v.name" @click="open(v.id)">
          <PortionDisc :size="96" :diameter-mm="v.picture?.diameter_mm" :colour="v.picture?.colour" />
          <span>
            <b>{{ v.name }}</b>
            <em v-if="v.picture?.trouble" class="mend"><i class="sign high" />{{ v.picture.trouble }}</em>
            <em v-else>{{ unbroken(v.verdict) }}</em>
            <AllergenLine :text="v.picture?.allergens" />
            <small
              ><template v-if="v.picture?.trouble">needs mending: open it, or export it</template
              ><template v-else
                >{{ v.picture?.count }} {{ forms.find((f) => f.value === v.form)?.many
                }}<template v-if="v.picture?.diameter_mm">, {{ v.picture.diameter_mm.toFixed(0) }} mm</template
                ><template v-if="heats.get(heatKey(v))"> · {{ unbroken(heats.get(heatKey(v))) }}</template></template
              >
              · changed {{ ago(v.updated_at, now) }}</small
            >
          </span>
        </button>
        <span class="acts">
          <el-button class="ghost" :aria-label="`Duplicate ${v.name}`" title="Duplicate" :disabled="busy" @click="duplicate(v)"
            ><Icon name="copy"
          /></el-button>
          <ExportMenu kind="variations" :id="v.id" :name="v.name" />
          <el-button class="ghost" :aria-label="`Put aside ${v.name}`" :disabled="busy" @click="remove(v)"><Icon name="bin" /></el-button>
        </span>
      </li>
    </ul>
    <p v-else-if="!bench.list.length" class="empty">No variation yet. Choose a base, name it, and start.</p>
    <form class="new" novalidate @submit.prevent="create">
      <h3>A new variation</h3>
      <el-radio-group v-if="bases.length" v-model="baseId" class="bases" aria-label="Base">
        <el-radio v-for="b in bases" :key="b.id" :value="b.id"
          >{{ b.name }} <small>{{ b.verdict }}</small></el-radio
        >
      </el-radio-group>
      <p v-else class="empty">A variation stands on a base. <router-link to="/bases">Begin with a base.</router-link></p>
      <el-input v-model="name" maxlength="200" placeholder="Its name" aria-label="Name of the new variation" />
      <el-button native-type="submit" class="go" :disabled="busy || !baseId">Start it</el-button>
    </form>
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
  width: 190px;
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
.list li {
  display: flex;
  align-items: center;
  padding: var(--s1);
}
.list li.here {
  background: var(--yolk-wash);
  box-shadow: inset 0 0 0 2px var(--ink);
}
.list .ghost {
  width: var(--touch);
  padding: 0;
}
.open {
  display: flex;
  align-items: center;
  gap: var(--s3);
  flex: 1;
  min-width: 0;
  min-height: 84px;
  text-align: left;
  background: none;
  border: 0;
  padding: var(--s1) var(--s2);
  cursor: pointer;
  border-radius: var(--r-ctl);
}
.acts {
  display: grid;
}
.open svg {
  flex: none;
}
.open b {
  display: block;
  font-size: var(--t-lead);
}
.open em {
  display: -webkit-box;
  -webkit-line-clamp: 3;
  -webkit-box-orient: vertical;
  overflow: hidden;
  font-style: normal;
  font-size: 14px;
  line-height: 1.2;
  padding: 2px 0 4px;
}
.open .mend {
  color: var(--beet);
}
.open .mend .sign {
  margin-right: 6px;
}
.open small {
  display: block;
  color: var(--ink-2);
  font-size: var(--t-mini);
}
.new {
  display: grid;
  gap: var(--s2);
  max-width: 420px;
  margin-top: var(--s5);
  padding-top: var(--s4);
  border-top: 2px solid var(--hair);
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
</style>
