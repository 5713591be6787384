<script setup lang="ts">
import { computed } from 'vue'
import AllergenLine from '@/parts/AllergenLine.vue'
import Icon from '@/parts/Icon.vue'
import { onStep, unbroken } from '@/parts/figures'
import { unitsShown } from '@/parts/settings'
import { useSheet } from './sheet'

/** What comes next, and what to mind while this is done. */
const sheet = useSheet()
const batch = computed(() => sheet.batch!)
const next = computed(() => sheet.next)
const bowl = computed(() => batch.value.state.bowls.find((b) => b.key === next.value?.bowl)?.name)
const amount = computed(() => {
  const t = next.value
  if (!t || t.kind !== 'weigh') return ''
  return unitsShown.value === 'cups' && t.measure ? unbroken(t.measure) : `${onStep(t.asks_g, t.decimals ?? 0)} g`
})
/** Of the task in hand first, then of the next one, each once. */
const minds = computed(() => {
  const of = (t?: { mind?: string[] }) => t?.mind ?? []
  const cups = unitsShown.value === 'cups' && sheet.current?.cup_mind ? [sheet.current.cup_mind] : []
  const own = sheet.current?.kind === 'weigh' ? [...cups, ...of(sheet.current), ...of(next.value)] : of(sheet.current)
  return [...new Set(own)]
})
const begins = computed(() => batch.value.state.events === 0)
</script>

<template>
  <aside class="side" aria-label="Beside it">
    <section v-if="begins" class="panel tools">
      <header><h2>Out on the bench</h2></header>
      <p v-for="s in batch.plan.said" :key="s" class="said">{{ s }}</p>
      <ul>
        <li v-for="t in batch.plan.tools" :key="t">{{ t }}</li>
      </ul>
    </section>
    <section v-else-if="next" class="panel next-up">
      <header><h2>Get ready</h2></header>
      <p v-if="next.kind === 'weigh'" class="ready">
        <b>{{ next.label }}</b> <b>{{ amount }}</b><span>in the {{ bowl }}</span>
      </p>
      <p v-else class="ready">
        <span>{{ (unitsShown === 'cups' && next.in_cups) || next.text }}</span>
      </p>
    </section>
    <section class="panel minds">
      <header><h2>Mind</h2></header>
      <p v-for="m in minds" :key="m" class="mind">
        <Icon name="caution" :size="26" /><span>{{ m }}</span>
      </p>
      <AllergenLine :text="batch.plan.allergen_text" class="allergens" />
    </section>
  </aside>
</template>

<style scoped>
.side {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  gap: var(--s3);
  min-height: 0;
}
.panel {
  overflow-y: auto;
  padding-bottom: var(--s3);
}
ul {
  margin: 0;
  padding: var(--s2) var(--s4) 0 32px;
  font-size: var(--t-body);
  line-height: 1.3;
}
.said {
  padding: var(--s2) var(--s4) 0;
  font-weight: 600;
}
.tools {
  max-height: 40vh;
}
.ready {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 0 var(--s3);
  padding: var(--s2) var(--s4) 0;
  font-size: var(--t-lead);
}
.ready b {
  font-size: 26px;
  line-height: 1.1;
  overflow-wrap: anywhere;
}
.ready span {
  flex: 1 1 100%;
  color: var(--ink-2);
}
.mind {
  display: flex;
  gap: var(--s2);
  padding: var(--s2) var(--s4) 0;
  font-size: 18px;
  line-height: 1.25;
}
.mind svg {
  color: var(--beet);
}
.allergens {
  padding: var(--s3) var(--s4) 0;
  font-size: var(--t-body);
}
@media (max-width: 1100px) {
  .side {
    grid-template: auto / minmax(0, 1fr) minmax(0, 1fr);
  }
  .tools {
    max-height: 22vh;
  }
}
@media (max-width: 560px) {
  .side {
    grid-template: auto auto / minmax(0, 1fr);
  }
}
</style>
