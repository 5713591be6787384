<script setup lang="ts">
import { nextTick, onMounted, useTemplateRef } from 'vue'
import { learnPlate } from '@/kitchen/firstPiece'
import { useKitchen } from '@/kitchen/kitchen'
import { sayWithButton } from '@/parts/undo'
import { useBoard, type Bowl } from './board'

/** The first one is done: the cook's word moves heat, time or bowl for the rest. */
const props = defineProps<{ bowl: Bowl; more: number }>()
const board = useBoard()
const kitchen = useKitchen()
const strip = useTemplateRef<HTMLElement>('strip')
const one: Record<string, string> = { waffle: 'waffle', crepe: 'crêpe', drop_scone: 'drop scone' }
/** What it showed of the plate holds for this morning; whether it is kept for others is asked. */
async function judge(verdict: Bowl['effects'][number]['verdict'], label: string) {
  const { plate } = props.bowl
  await board.tell({ kind: 'judged', of: props.bowl.key, verdict }, `the first one: ${label}`)
  const own = kitchen.own?.griddles?.find((g) => g.id === plate)
  if (own && (verdict === 'pale' || verdict === 'dark' || verdict === 'raw'))
    sayWithButton(`Does ${own.name} always cook like that?`, 'Keep it for other mornings', () => learnPlate(own, verdict))
}
const unseen = () => board.tell({ kind: 'judged', of: props.bowl.key }, 'poured on without a verdict')
function focus() {
  strip.value?.scrollIntoView({ block: 'nearest' })
  strip.value?.querySelector<HTMLElement>('[data-verdict]')?.focus()
}
onMounted(() => void nextTick(() => strip.value?.scrollIntoView({ block: 'nearest' })))
defineExpose({ focus })
</script>

<template>
  <section ref="strip" class="panel strip" :aria-label="`Judge the first ${one[bowl.form] ?? 'pancake'}`" data-judge>
    <header class="head">
      <h2>{{ bowl.name }}: how did the first {{ one[bowl.form] ?? 'pancake' }} come out?</h2>
      <p>
        moves heat, time or bowl for the other {{ bowl.count - bowl.poured
        }}<template v-if="more">; {{ more }} more {{ more === 1 ? 'waits' : 'wait' }} for a verdict</template>
      </p>
      <el-button class="ghost end" @click="unseen">No verdict, pour on</el-button>
    </header>
    <div class="ways">
      <el-button v-for="e in bowl.effects" :key="e.verdict" class="way" :data-verdict="e.verdict" @click="judge(e.verdict, e.label)"
        ><span
          ><b>{{ e.label }}</b
          ><small>{{ e.says }}</small></span
        ></el-button
      >
    </div>
  </section>
</template>

<style scoped>
.strip {
  scroll-margin-top: var(--s2);
  padding: var(--s2) var(--s3) var(--s3);
}
.head {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0 var(--s3);
  padding: 0;
}
.head .end {
  margin-left: auto;
}
.ways {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(104px, 1fr));
  gap: var(--s2);
}
.way {
  height: auto;
  min-height: 60px;
  padding: var(--s1) var(--s2);
  white-space: normal;
}
.way span {
  display: grid;
  line-height: 1.2;
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
  }
}
</style>
