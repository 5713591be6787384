<script setup lang="ts">
import { computed, useTemplateRef } from 'vue'
import { forms } from '@/bench/choices'
import { learnPlate, type PieceVerdict } from '@/kitchen/firstPiece'
import { useKitchen } from '@/kitchen/kitchen'
import { clock } from '@/parts/clock'
import { sayWithButton } from '@/parts/undo'
import { useBoard, type Bowl } from './board'

/** The first one is done: the cook's word moves heat, time or bowl for the rest. */
const props = defineProps<{ bowl: Bowl; more: number }>()
const board = useBoard()
const kitchen = useKitchen()
const strip = useTemplateRef<HTMLElement>('strip')
const one = computed(() => forms.find((f) => f.value === props.bowl.form)?.label.toLowerCase() ?? 'one')
/** What it showed of the plate holds for this morning; whether it is kept for others is asked. */
async function judge(e: Bowl['effects'][number]) {
  const { key } = props.bowl
  const own = kitchen.own?.griddles?.find((g) => g.id === props.bowl.plate)
  await board.tell({ kind: 'judged', of: props.bowl.key, verdict: e.verdict }, `the first one: ${e.label}`)
  if (own && e.teaches) sayWithButton(`Does “${own.name}” always cook like that?`, 'Yes, keep it', () => learnPlate(own, e.verdict as PieceVerdict))
  const saw = board.bowls.get(key)?.saw
  if (saw) {
    const took = [saw.first_s, saw.second_s].filter((s) => s !== undefined)
    sayWithButton(`It took ${took.map((s) => clock(s!)).join(' and ')}. Are these your minutes for it?`, 'Keep them', () => board.keepMinutes(key))
  }
}
const unseen = () => board.tell({ kind: 'judged', of: props.bowl.key }, 'poured on without a verdict')
function focus() {
  strip.value?.scrollIntoView({ block: 'nearest' })
  strip.value?.querySelector<HTMLElement>('[data-verdict]')?.focus()
}
defineExpose({ focus })
</script>

<template>
  <section ref="strip" class="strip" :aria-label="`Judge the first ${one}`" data-judge>
    <header class="head">
      <h2>{{ bowl.name }}: how did the first {{ one }} come out?</h2>
      <p>
        moves heat, time or bowl for the other {{ bowl.count - bowl.poured
        }}<template v-if="more">; {{ more }} more {{ more === 1 ? 'waits' : 'wait' }} for a verdict</template>
      </p>
    </header>
    <div class="ways">
      <el-button v-for="e in bowl.effects" :key="e.verdict" class="way" :data-verdict="e.verdict" @click="judge(e)"
        ><span
          ><b>{{ e.label }}</b
          ><small>{{ e.says }}</small></span
        ></el-button
      >
    </div>
    <el-button class="ghost" @click="unseen">No verdict, pour on</el-button>
  </section>
</template>

<style scoped>
.strip {
  display: grid;
  gap: var(--s1);
  min-height: 0;
  padding: var(--s2);
  overflow-y: auto;
  border: 2px solid var(--rim);
  border-radius: var(--r-well);
  scroll-margin-top: var(--s2);
}
.head {
  padding: 0;
}
h2 {
  font-size: var(--t-lead);
  overflow-wrap: anywhere;
}
.head p {
  color: var(--ink-2);
  font-size: var(--t-mini);
}
.ways {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(104px, 1fr));
  gap: var(--s1);
}
.way {
  height: auto;
  min-height: 56px;
  padding: 2px var(--s2);
  white-space: normal;
}
.way span {
  display: grid;
  line-height: 1.15;
}
.way b {
  font-size: var(--t-lead);
}
.way small {
  color: var(--ink-2);
}
@media (max-width: 1000px) {
  .strip {
    scroll-margin-top: min(46vh, 400px);
    background: var(--enamel);
  }
}
</style>
