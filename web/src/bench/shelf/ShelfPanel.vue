<script setup lang="ts">
import { nextTick, ref, watch } from 'vue'
import { say } from '@/parts/say'
import type { Addition, Ingredient, SheetLine } from '@/api/client'
import { onStep } from '@/parts/figures'
import { focusNear } from '@/parts/focus'
import BesideList from '@/parts/BesideList.vue'
import Icon from '@/parts/Icon.vue'
import { useBench } from '@/bench/bench'
import AdditionCard from './AdditionCard.vue'
import FindAddition from './FindAddition.vue'

const bench = useBench()
const find = ref<InstanceType<typeof FindAddition>>()
const list = ref<HTMLElement>()

watch(
  () => bench.active,
  async (id) => {
    await nextTick()
    list.value?.querySelector(`[data-id="${CSS.escape(id ?? '')}"]`)?.scrollIntoView({ block: 'nearest' })
  },
)

/** What was found is in hand, and so is the keyboard. */
async function add(found: Ingredient) {
  bench.add(found)
  await nextTick()
  await nextTick()
  list.value?.querySelector<HTMLElement>('.card.active')?.focus({ preventScroll: true })
}

function remove(id: string, label: string) {
  const at = bench.shelf.findIndex((s) => s.addition.id === id)
  bench.takeOut(id)
  void focusNear('.shelf .card', at, '.shelf .find input')
  say({ message: `${label} is out of the bowl. Ctrl+Z puts it back.`, duration: 5000 })
}

async function laid(id: string, stage: NonNullable<Addition['stage']>, line?: SheetLine) {
  const grams = await bench.changeStage(id, stage)
  if (grams !== undefined && line)
    say({ message: `${line.label}: ${onStep(grams, line.decimals)} g go evenly on the portions. Ctrl+Z takes it back.`, duration: 5000 })
}

function takeOff(i: number) {
  const text = bench.doc?.parts?.[i]?.text
  bench.change((d) => {
    d.parts?.splice(i, 1)
    if (!d.parts?.length) delete d.parts
  })
  say({ message: `${text} is taken off. Ctrl+Z puts it back.`, duration: 5000 })
}

defineExpose({ focusFind: () => find.value?.focus() })
</script>

<template>
  <section class="panel shelf" aria-label="Additions">
    <header>
      <h2>Additions</h2>
      <p class="end">{{ bench.shelf.length }} added</p>
    </header>
    <FindAddition ref="find" class="find" :flour-g="bench.sheet?.batter.flour_g" @found="add" />
    <div v-if="bench.shelf.length" ref="list" class="cards">
      <AdditionCard
        v-for="s in bench.shelf"
        :key="s.addition.id"
        :data-id="s.addition.id"
        :addition="s.addition"
        :line="s.line"
        :active="s.addition.id === bench.active"
        :counted="bench.counted"
        :flour-g="bench.sheet?.batter.flour_g"
        @pick="bench.active = s.addition.id"
        @change="bench.changeAddition(s.addition.id!, $event)"
        @stage="laid(s.addition.id!, $event, s.line)"
        @is="bench.isIt(s.addition.id!)"
        @replace="bench.replace(s.addition.id!, $event)"
        @step="bench.step(s.addition.id!, $event)"
        @remove="remove(s.addition.id!, s.line?.label ?? s.addition.ingredient)" />
    </div>
    <div v-else class="empty">
      <h3>Nothing added yet</h3>
      <p>The batter is the plain base. Press <kbd>/</kbd> to find an addition.</p>
    </div>
    <BesideList v-if="bench.doc?.parts?.length" class="aside" :parts="bench.doc.parts" @off="takeOff" />
    <el-button class="dashed more" @click="find?.focus()"><Icon name="plus" />Add something</el-button>
  </section>
</template>

<style scoped>
.shelf {
  display: flex;
  flex-direction: column;
}
.find {
  margin: 10px var(--s3);
}
.cards {
  display: flex;
  flex-direction: column;
  gap: 10px;
  padding: 0 var(--s3) var(--s2);
  overflow: auto;
  min-height: 0;
  flex: 1;
}
.empty {
  margin: 0 var(--s3);
  padding: var(--s4);
  border: 2px dashed var(--edge);
  border-radius: var(--r-well);
}
.empty h3 {
  font-size: var(--t-lead);
  margin-bottom: 6px;
}
.aside {
  padding: 0 var(--s3) var(--s2);
  max-height: 30%;
  overflow: auto;
  flex: none;
}
.more {
  margin: auto var(--s3) var(--s3);
  flex: none;
}
@media (min-width: 1200px) {
  .more {
    display: none; /* the field above it is in sight */
  }
}
</style>
