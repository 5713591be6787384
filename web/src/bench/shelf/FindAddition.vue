<script setup lang="ts">
import { nextTick, onMounted, ref, watch } from 'vue'
import { useMutationObserver } from '@vueuse/core'
import { useRouter } from 'vue-router'
import { api, got, said, useLatest, type Ingredient } from '@/api/client'
import Icon from '@/parts/Icon.vue'
import { onStep } from '@/parts/figures'

const props = defineProps<{ flourG?: number; words?: string }>()
const emit = defineEmits<{ found: [ingredient: Ingredient] }>()

const text = ref('')
/** The key that leads here, pressed once more, is no letter of a name. */
watch(text, (t) => t.startsWith('/') && (text.value = t.slice(1)))
const count = ref<number>() // of what was found, for who cannot see the list
const trouble = ref('')
const box = ref<{ focus: () => void; blur: () => void }>()

// The field points at a row of the list only when there is one in hand.
const root = ref<HTMLElement>()
useMutationObserver(
  root,
  (changes) => {
    for (const { target } of changes) {
      const input = target as HTMLElement
      if (input.getAttribute('aria-activedescendant')?.endsWith('--1')) input.removeAttribute('aria-activedescendant')
    }
  },
  { subtree: true, attributes: true, attributeFilter: ['aria-activedescendant'] },
)
onMounted(() => root.value?.querySelector('[aria-activedescendant$="--1"]')?.removeAttribute('aria-activedescendant'))

/** The kit wraps its list in a second one and in a region without a name; what scrolls is the one list. */
function plainList() {
  for (const list of document.querySelectorAll('.finds ul[role=listbox]')) {
    for (const e of document.querySelectorAll('.finds[role], .finds [role=region]')) e.removeAttribute('role')
    const scrolls = list.parentElement!
    scrolls.id = list.id
    scrolls.role = 'listbox'
    scrolls.ariaLabel = 'Found'
    list.removeAttribute('id')
    list.role = 'presentation'
  }
}

const latest = useLatest()
let listed = '' // the text that the list answers
let hurried: string | undefined // the text that Enter was pressed on before its list was there

/** Enter takes the first of the list for what is typed, never of the list for less than that. */
function enter(e: KeyboardEvent) {
  hurried = undefined
  if (!text.value || text.value === listed) return
  hurried = text.value
  e.stopPropagation()
  e.preventDefault()
}

async function search(q: string, done: (found: Ingredient[]) => void) {
  try {
    const answer = await latest(got(api.GET('/ingredients', { params: { query: { q, flour_g: props.flourG, limit: 60 } } })))
    if (!answer) return
    trouble.value = ''
    listed = q
    count.value = q ? answer.items.length : undefined
    // Nothing found is said, and can be made an ingredient of one's own.
    const items = answer.items.length ? answer.items : ([{ name: q, nothing: true }] as unknown as Ingredient[])
    done(items)
    void nextTick(plainList)
    if (hurried === q) take(items[0]!)
  } catch (e) {
    trouble.value = said(e)
    done([])
  }
}

const router = useRouter()
function take(found: Ingredient | Record<string, unknown>) {
  if ('nothing' in found) void router.push({ path: '/pantry', query: { own: found.name as string } })
  else emit('found', found as Ingredient)
  hurried = undefined
  text.value = ''
  box.value?.blur()
}

defineExpose({ focus: () => box.value?.focus() })
</script>

<template>
  <div ref="root" @keydown.enter.capture="enter">
    <el-autocomplete
      ref="box"
      v-model="text"
      class="box"
      popper-class="finds"
      :fetch-suggestions="search"
      value-key="name"
      :placeholder="words ?? 'Find an addition'"
      :aria-label="words ?? 'Find an addition'"
      :debounce="80"
      highlight-first-item
      clearable
      @select="take"
      @keydown.esc="box?.blur()">
      <template #prefix><Icon name="search" /></template>
      <template #suffix><kbd v-if="!text && !words">/</kbd></template>
      <template #default="{ item }">
        <span v-if="'nothing' in item" class="hit"><Icon name="plus" />Nothing is called that. Make “{{ item.name }}” an ingredient of your own</span>
        <span v-else class="hit">
          <i class="tint" :style="{ background: item.colour ?? 'transparent' }" />
          <span class="name">{{ item.name }}</span>
          <small v-if="item.dose.light_g"
            >usually {{ onStep(item.dose.light_g, item.dose.decimals) }}–{{ onStep(item.dose.bold_g, item.dose.decimals) }} g</small
          >
        </span>
      </template>
    </el-autocomplete>
    <p class="vh" role="status">{{ count === undefined ? '' : count ? `${count} found, arrow down to choose` : 'nothing found' }}</p>
    <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
  </div>
</template>

<style scoped>
.box {
  width: 100%;
}
.hit {
  display: flex;
  align-items: center;
  gap: var(--s2);
  min-width: 0;
  width: 100%;
}
.tint {
  flex: none;
  width: 14px;
  height: 14px;
  border-radius: 50%;
  border: 1px solid var(--edge);
}
.name {
  overflow: hidden;
  text-overflow: ellipsis;
}
small {
  margin-left: auto;
  padding-left: var(--s3);
  color: var(--ink-2);
  font-size: var(--t-mini);
}
.trouble {
  color: var(--beet);
  font-size: var(--t-mini);
  padding-top: var(--s1);
}
</style>
