<script setup lang="ts">
import { computed, ref } from 'vue'
import { say } from '@/parts/say'
import { useRouter } from 'vue-router'
import CompositionBar from '@/parts/CompositionBar.vue'
import FigureTable from '@/parts/FigureTable.vue'
import Icon from '@/parts/Icon.vue'
import { sayPutAside } from '@/parts/undo'
import { useBench } from '@/bench/bench'
import MeasureDialog from './MeasureDialog.vue'
import OwnDialog from './OwnDialog.vue'
import OwnChip from './OwnChip.vue'
import StockForm from './StockForm.vue'
import { usePantry, type Detail, type Listed } from './pantry'
import { groups } from './words'

const props = defineProps<{ detail: Detail }>()
const pantry = usePantry()
const router = useRouter()
const bench = useBench()
const i = computed(() => props.detail.ingredient)
const mine = computed(() => pantry.items.filter((x) => props.detail.overrides.includes(x.id)))
const own = computed(() => mine.value.find((x) => !x.item.stands_for))
const editOpen = ref(false)
const measureOpen = ref(false)
async function empty(item: Listed) {
  try {
    const used = item.item.stands_for ? 0 : props.detail.used_in.length
    const bringBack = await pantry.remove(item)
    sayPutAside(`“${item.item.name}” is out of the pantry${used ? `; ${used} recipes with it cannot be worked out now` : ''}.`, bringBack)
  } catch (e) {
    say((e as Error).message)
  }
}
async function open(id: string) {
  localStorage.setItem('ladle.open', id)
  if (bench.loaded) await bench.open(id)
  void router.push('/')
}
</script>

<template>
  <section class="panel detail" :data-ingredient="i.id" aria-label="Ingredient">
    <header>
      <h2>{{ i.name }}</h2>
      <p class="end">{{ groups[i.group] ?? i.group }}</p>
    </header>
    <div class="body">
      <p class="chips">
        <OwnChip v-if="i.own" :own="i.own" />
        <span v-for="a in i.allergens" :key="a" class="chip beet"><Icon name="allergen" :size="14" />{{ a }}</span>
        <span v-for="a in detail.may_contain" :key="a" class="chip">may contain {{ a }}</span>
        <span v-if="detail.dose_text" class="chip">usually {{ detail.dose_text }}</span>
      </p>
      <div class="halves">
        <div>
          <h3>In 100 g <small v-if="i.own?.stands_for" class="muted">yours, and the table’s</small></h3>
          <CompositionBar :slices="detail.slices" />
        </div>
        <div>
          <h3>In a batter</h3>
          <FigureTable :figures="detail.facts" :own="i.own?.stands_for ? 'yours' : ''" :table="i.own?.stands_for ? 'the table' : undefined" />
        </div>
      </div>
      <p class="acts">
        <el-button v-if="own" @click="editOpen = true">Change its figures</el-button>
        <el-button v-if="!i.own || i.own.stands_for" @click="measureOpen = true"><Icon name="scale" />Measure it</el-button>
        <el-button v-for="m in detail.prepares" :key="m.id" @click="router.push({ path: '/prep', query: { method: m.id, from: i.id } })"
          ><Icon name="tub" />{{ m.label }}</el-button
        >
      </p>
      <ul v-if="mine.length" class="mine">
        <li v-for="x in mine" :key="x.id" class="well" :data-item="x.item.id">
          <b>{{ x.item.name }}</b>
          <OwnChip v-if="x.own.made_on || x.own.measured.length || x.own.estimated.length" :own="x.own" />
          <span class="muted">{{
            [x.item.stock_g ? `${x.item.stock_g} g there` : '', x.item.price_per_kg ? `${x.item.price_per_kg.toFixed(2)} a kg` : '']
              .filter(Boolean)
              .join(' · ')
          }}</span>
          <el-button
            class="ghost"
            :aria-label="`${x.own.keeps_days ? 'It is empty: take' : 'Take'} ${x.item.name} out of the pantry`"
            @click="empty(x)"
            ><Icon name="bin" />{{ x.own.keeps_days ? 'It is empty' : '' }}</el-button
          >
        </li>
      </ul>
      <StockForm :ingredient="i" />
      <div v-if="detail.cautions.length" class="care">
        <p v-for="c in detail.cautions" :key="c"><Icon name="caution" :size="16" />{{ c }}</p>
      </div>
      <div v-if="detail.used_in.length" class="used">
        <h3>Used in</h3>
        <template v-for="u in detail.used_in" :key="u.id">
          <el-button v-if="u.kind === 'variation'" @click="open(u.id)">{{ u.name }}</el-button><router-link
            v-else-if="u.kind === 'sauce'"
            class="chip"
            :to="{ path: '/sauces', query: { sauce: u.id } }"
            >{{ u.name }} (sauce)</router-link
          ><span v-else class="chip">{{ u.name }} (base)</span>
        </template>
      </div>
      <p class="source">
        {{ detail.source }}<template v-if="detail.notes"> · {{ detail.notes }}</template
        ><template v-if="i.own?.estimated.length"> · estimated: {{ i.own.estimated.join(', ') }}</template>
      </p>
    </div>
    <OwnDialog v-model="editOpen" :edit="own" />
    <MeasureDialog
      v-model="measureOpen"
      :ingredient="i"
      :readable="detail.facts.some((f) => f.name === 'reads')"
      :pieces="detail.facts.some((f) => f.name === 'a piece')" />
  </section>
</template>

<style scoped>
.detail {
  overflow: auto;
}
.body {
  display: grid;
  gap: var(--s3);
  padding: var(--s2) var(--s4) var(--s4);
}
.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.halves {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(320px, 100%), 1fr));
  gap: var(--s3) var(--s5);
}
h3 {
  font-size: var(--t-body);
  padding-bottom: var(--s1);
}
h3 small {
  font-weight: 500;
  font-size: var(--t-mini);
}
.acts,
.used {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s2);
  align-items: center;
}
.used h3 {
  padding: 0 var(--s2) 0 0;
}
.mine {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 6px;
}
.mine li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s2);
  padding: 4px var(--s3);
}
.mine .ghost {
  margin-left: auto;
}
.care p {
  display: flex;
  gap: var(--s2);
  align-items: center;
}
.source {
  color: var(--ink-2);
  font-size: var(--t-mini);
}
</style>
