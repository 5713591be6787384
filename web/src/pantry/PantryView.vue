<script setup lang="ts">
import { useDebounceFn } from '@vueuse/core'
import { computed, nextTick, onMounted, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import Icon from '@/parts/Icon.vue'
import ImportDialog from './ImportDialog.vue'
import IngredientPanel from './IngredientPanel.vue'
import OwnChip from './OwnChip.vue'
import OwnDialog from './OwnDialog.vue'
import TroubledItems from './TroubledItems.vue'
import TwoSides from '@/parts/TwoSides.vue'
import { usePantry } from './pantry'
import { groups } from './words'

const pantry = usePantry()
const route = useRoute()
const router = useRouter()
const wished = computed(() => (typeof route.query.own === 'string' ? route.query.own : ''))
const ownOpen = ref(false)
watch(wished, (name) => (ownOpen.value = !!name || ownOpen.value), { immediate: true })
watch(ownOpen, (open) => {
  if (!open && wished.value) void router.replace({ query: {} })
})
const importOpen = ref(false)
/** The ingredient that the address asks for. */
const looked = computed(() => (typeof route.query.look === 'string' ? route.query.look : undefined))
watch(looked, (id) => id && void pantry.look(id))
onMounted(async () => {
  await Promise.all([pantry.search(), pantry.refresh()])
  const first = pantry.found.find((i) => i.own) ?? pantry.found[0]
  const id = looked.value ?? pantry.wanted ?? first?.id // a row may have been taken while the shelf was opening
  if (id) await pantry.look(id)
})
watch(
  () => pantry.detail?.ingredient.id,
  async () => {
    await nextTick()
    document.querySelector('.shelf button.on')?.scrollIntoView({ block: 'nearest' })
  },
)
const searchSoon = useDebounceFn(() => pantry.search(), 80)
watch(
  () => pantry.query,
  () => void searchSoon(),
)
watch(
  () => pantry.group,
  () => void pantry.search(),
)
const filters = computed(() => [
  { value: 'all', label: 'everything' },
  { value: 'mine', label: 'mine and tubs' },
  ...Object.entries(groups).map(([value, label]) => ({ value, label })),
])
</script>

<template>
  <main id="work" tabindex="-1" class="pantry">
    <header class="bar area-bar">
      <h1>Pantry</h1>
      <p class="muted">What is in it, and how sure is that?</p>
      <el-button @click="ownOpen = true"><Icon name="plus" />Your own</el-button>
      <el-button @click="importOpen = true">Import</el-button>
      <a class="el-button" href="/api/v1/pantry-file" download="pantry.csv">Export</a>
    </header>
    <section class="panel shelf" aria-label="Which ingredients">
      <div class="find">
        <el-input v-model="pantry.query" placeholder="Find an ingredient" aria-label="Find an ingredient" clearable
          ><template #prefix><Icon name="search" /></template
        ></el-input>
        <el-select v-model="pantry.group" filterable aria-label="Which ingredients"
          ><el-option v-for="f in filters" :key="f.value" :value="f.value" :label="f.label"
        /></el-select>
      </div>
      <p v-if="pantry.trouble" class="trouble" role="alert">
        <i class="sign high" />{{ pantry.trouble }} <el-button @click="pantry.search">Try again</el-button>
      </p>
      <TroubledItems />
      <ul>
        <li v-for="i in pantry.found" :key="i.id">
          <button type="button" :class="{ on: i.id === pantry.detail?.ingredient.id }" :data-row="i.id" @click="pantry.look(i.id)">
            <i class="tint" :style="{ background: i.colour ?? 'transparent' }" />
            <span class="name">{{ i.name }}</span>
            <OwnChip v-if="i.own" :own="i.own" />
            <span class="mini" :title="`water ${i.water_g.toFixed(0)}, sugars ${i.sugars_g.toFixed(0)}, rest ${i.rest_g.toFixed(0)} g in 100 g`"
              ><i :style="{ flex: i.water_g }" class="w" /><i :style="{ flex: i.sugars_g }" class="s" /><i :style="{ flex: i.rest_g }" class="r"
            /></span>
          </button>
        </li>
      </ul>
      <p v-if="pantry.loaded && !pantry.found.length" class="none">
        {{
          pantry.group === 'mine' && !pantry.query
            ? 'Nothing of your own yet. Prepare a tub, or tell what a pack says.'
            : 'Nothing of that name. Try another word, or add it as your own.'
        }}
        <el-button @click="ownOpen = true">Your own</el-button>
      </p>
    </section>
    <IngredientPanel v-if="pantry.detail" :detail="pantry.detail" />
    <OwnDialog v-model="ownOpen" :called="wished" />
    <ImportDialog v-model="importOpen" />
    <TwoSides :conflict="pantry.conflict" @settle="pantry.settle" />
  </main>
</template>

<style scoped>
.pantry {
  position: relative;
  display: grid;
  grid-template: 60px minmax(0, 1fr) / minmax(300px, 400px) minmax(0, 1fr);
  gap: 0 10px;
  min-height: 0;
  padding: 0 var(--s3) var(--s3) 0;
}
.bar {
  grid-column: 1 / -1;
}
.shelf {
  display: flex;
  flex-direction: column;
  overflow: hidden;
}
.find {
  display: grid;
  grid-template-columns: 1.4fr 1fr;
  gap: var(--s2);
  padding: var(--s3);
}
ul {
  list-style: none;
  margin: 0;
  padding: 0 var(--s2) var(--s2);
  overflow: auto;
  flex: 1;
}
li button {
  display: grid;
  grid-template-columns: 14px minmax(0, 1fr) auto;
  align-items: center;
  gap: 2px var(--s2);
  width: 100%;
  min-height: 48px;
  padding: 6px var(--s2);
  border: 0;
  border-radius: var(--r-ctl);
  background: none;
  text-align: left;
  cursor: pointer;
}
li button.on {
  background: var(--yolk-wash);
  box-shadow: inset 0 0 0 2px var(--ink);
}
.tint {
  width: 14px;
  height: 14px;
  border-radius: 50%;
  border: 1px solid var(--edge);
}
.name {
  overflow: hidden;
  text-overflow: ellipsis;
}
.mini {
  grid-column: 2 / -1;
  display: flex;
  height: 7px;
  border-radius: 4px;
  overflow: hidden;
  background: var(--well-2);
}
.mini i {
  display: block;
}
.mini .w {
  background: var(--water-fill);
}
.mini .s {
  background: var(--honey-fill);
}
.mini .r {
  background: var(--crumb);
}
.none,
.trouble {
  padding: var(--s3) var(--s4);
  color: var(--ink-2);
}
.trouble {
  display: flex;
  gap: var(--s2);
  align-items: center;
  color: var(--beet);
}
@media (max-width: 900px) {
  .pantry {
    display: flex;
    flex-direction: column;
    overflow: auto;
    padding: 0 var(--s3) var(--s3);
    gap: 10px;
  }
  .bar {
    flex-wrap: wrap;
    padding: var(--s2) 0;
  }
  .shelf {
    flex: none;
    max-height: 46vh;
  }
  .pantry > :last-of-type {
    flex: none;
    overflow: visible;
  }
}
</style>
