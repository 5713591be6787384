<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { useDebounceFn } from '@vueuse/core'
import { api, got, said, useLatest, type Schemas } from '@/api/client'
import { forms } from '@/bench/choices'
import { addressOf } from '@/parts/address'
import Icon from '@/parts/Icon.vue'
import type { IconName } from '@/parts/icons'
import { shift, unitsShown } from '@/parts/settings'

/** One search over everything that has a name, and over what can be done from anywhere. */
const open = defineModel<boolean>({ required: true })
const router = useRouter()
const text = ref('')
const found = ref<Schemas['FoundItem'][]>([])
const trouble = ref('')
const at = ref(0)
const field = ref<{ focus: () => void; input?: HTMLInputElement }>()

type Row = { key: string; name: string; says: string; icon: IconName; go: () => unknown; also?: string } // also found by these words
const kinds: Record<Schemas['FoundItem']['kind'], { says: string; icon: IconName }> = {
  variation: { says: 'variation', icon: 'bench' },
  base: { says: 'base', icon: 'base' },
  ingredient: { says: 'in the pantry', icon: 'shelf' },
  tub: { says: 'your own', icon: 'tub' },
  sauce: { says: 'sauce', icon: 'pot' },
}
const address = (f: Schemas['FoundItem']) =>
  f.kind === 'variation'
    ? addressOf(f.id)
    : f.kind === 'base'
      ? { path: '/bases', query: { base: f.id } }
      : f.kind === 'sauce'
        ? { path: '/sauces', query: { sauce: f.id } }
        : { path: '/pantry', query: { look: f.id } }

const actions = computed<Row[]>(() => [
  { key: 'bases', name: 'Bases', says: 'go to', icon: 'base', go: () => router.push('/bases') },
  { key: 'pantry', name: 'Pantry', says: 'go to', icon: 'shelf', go: () => router.push('/pantry') },
  { key: 'griddle', name: 'Griddle', says: 'go to', icon: 'griddle', go: () => router.push('/griddle') },
  { key: 'sauces', name: 'Sauces', says: 'go to', icon: 'pot', go: () => router.push('/sauces') },
  { key: 'freezer', name: 'Freezer', says: 'go to', icon: 'fridge', go: () => router.push('/freezer') },
  { key: 'prep', name: 'Prep', says: 'go to', icon: 'knife', go: () => router.push('/prep') },
  {
    key: 'kitchen',
    name: 'Kitchen',
    says: 'go to',
    icon: 'kitchen',
    also: 'ounces oz fahrenheit celsius units altitude ladles plates pans irons scale eggs passcode settings',
    go: () => router.push('/kitchen'),
  },
  {
    key: 'allergens',
    name: 'Variations without an allergen',
    says: 'go to',
    icon: 'bench',
    also: 'allergen allergens allergy allergies free from contains',
    go: () => router.push({ path: '/', query: { variations: '1' } }),
  },
  {
    key: 'shift',
    name: shift.value === 'early' ? 'Daylight' : 'Early shift',
    says: 'do',
    icon: shift.value === 'early' ? 'sun' : 'moon',
    go: () => (shift.value = shift.value === 'early' ? 'day' : 'early'),
  },
  {
    key: 'units',
    name: unitsShown.value === 'cups' ? 'Show grams' : 'Show cups and spoons',
    says: 'do',
    icon: 'scale',
    also: 'ounces measures volume weight',
    go: () => (unitsShown.value = unitsShown.value === 'cups' ? 'grams' : 'cups'),
  },
])
const rows = computed<Row[]>(() => {
  const asked = text.value.trim().toLowerCase()
  return [
    ...found.value.map((f) => ({
      key: f.kind + f.id,
      name: f.name,
      says: [kinds[f.kind].says, forms.find((x) => x.value === f.form)?.label.toLowerCase()].filter(Boolean).join(', '),
      icon: kinds[f.kind].icon,
      go: () => router.push(address(f)),
    })),
    ...actions.value.filter((a) => `${a.name} ${a.also ?? ''}`.toLowerCase().includes(asked)),
  ]
})

const latest = useLatest()
/** Whether the list is for what is typed; a later search may have overtaken this one. */
async function search(): Promise<boolean> {
  try {
    const answer = await latest(got(api.GET('/search', { params: { query: { q: text.value.trim() } } })))
    if (!answer) return false
    found.value = answer.items
    at.value = 0
    trouble.value = ''
  } catch (e) {
    trouble.value = said(e)
  }
  return true
}
const searchSoon = useDebounceFn(search, 80)
watch(text, () => void searchSoon())
watch(
  open,
  (now) => {
    if (!now) return
    text.value = ''
    void search()
  },
  { immediate: true },
)

function ready() {
  field.value?.input?.setAttribute('role', 'combobox') // the kit passes every attribute on but this one
  field.value?.focus()
}
function move(by: number) {
  if (!rows.value.length) return
  at.value = (at.value + by + rows.value.length) % rows.value.length
  void nextTick(() => document.getElementById(`go-${at.value}`)?.scrollIntoView({ block: 'nearest' }))
}
async function enter() {
  while (!(await search())); // Enter goes to what is typed, never to what was found for less
  take(rows.value[at.value])
}
function take(row?: Row) {
  if (!row) return
  open.value = false
  void row.go()
}
</script>

<template>
  <el-dialog
    v-model="open"
    title="Go to"
    width="min(560px, 96vw)"
    top="8vh"
    append-to-body
    class="go-anywhere"
    :lock-scroll="false"
    @open-auto-focus="ready"
    @opened="ready">
    <el-input
      ref="field"
      v-model="text"
      aria-expanded="true"
      aria-controls="go-list"
      :aria-activedescendant="rows.length ? `go-${at}` : undefined"
      aria-label="Find a variation, a base, an ingredient, a tub"
      placeholder="A variation, a base, an ingredient, a tub"
      @keydown.down.prevent="move(1)"
      @keydown.up.prevent="move(-1)"
      @keydown.enter.prevent="enter">
      <template #prefix><Icon name="search" /></template>
    </el-input>
    <p v-if="trouble" class="trouble" role="alert"><i class="sign high" />{{ trouble }}</p>
    <ul v-if="rows.length" id="go-list" role="listbox" aria-label="Found">
      <li
        v-for="(r, i) in rows"
        :id="`go-${i}`"
        :key="r.key"
        role="option"
        :aria-selected="i === at"
        :class="{ at: i === at }"
        :data-found="r.name"
        @click="take(r)">
        <Icon :name="r.icon" /><b>{{ r.name }}</b
        ><small>{{ r.says }}</small>
      </li>
    </ul>
    <p v-else id="go-list" class="muted">Nothing is called that.</p>
    <p class="vh" role="status">{{ rows.length }} found</p>
  </el-dialog>
</template>

<style scoped>
ul {
  list-style: none;
  margin: var(--s2) 0 0;
  padding: 0;
  max-height: 60vh;
  overflow: auto;
}
li {
  display: flex;
  align-items: center;
  gap: var(--s3);
  min-height: var(--touch);
  padding: 0 var(--s3);
  border-radius: var(--r-ctl);
  cursor: pointer;
}
li b {
  min-width: 0;
  overflow-wrap: anywhere;
  line-height: 1.15;
}
li small {
  flex: none;
  margin-left: auto;
  color: var(--ink-2);
  font-size: var(--t-mini);
}
.at {
  background: var(--yolk-wash);
  box-shadow: inset 0 0 0 2px var(--ink);
}
.trouble {
  color: var(--beet);
  padding-top: var(--s2);
}
</style>
