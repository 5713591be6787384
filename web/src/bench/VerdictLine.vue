<script setup lang="ts">
import { computed, ref } from 'vue'
import { useBench } from './bench'
import { useHeat } from './heat/heat'
import HadDialog from '@/bench/make/HadDialog.vue'
import { useMaking } from '@/bench/make/making'
import AllergenLine from '@/parts/AllergenLine.vue'
import type { Worksheet } from '@/api/client'
import Icon from '@/parts/Icon.vue'
import { unbroken } from '@/parts/figures'
import type { IconName } from '@/parts/icons'
import { useEverOpen } from '@/parts/everOpen'
import { later } from '@/parts/later'

const InsideDialog = later(() => import('@/bench/dialogs/InsideDialog.vue'))
const MixDialog = later(() => import('@/bench/dialogs/MixDialog.vue'))

const props = defineProps<{ sheet: Worksheet }>()

const icons: Record<string, IconName> = { drift: 'caution', swap: 'swap', heat: 'griddle', allergens: 'allergen' }
const bench = useBench()
const heat = useHeat()
const of = (kind: string) => props.sheet.verdict.find((v) => v.kind === kind)
/** What it makes and what to weigh stand first, in a line each; the heat comes a moment later, before what it contains. */
const clauses = computed(() => {
  const all = props.sheet.verdict.filter((v) => v.kind !== 'weigh' && v.kind !== 'portion')
  if (heat.clause) all.splice(all.length - 1, 0, heat.clause)
  return all
})
/** What it contains is never cut short: much of it gets a row of its own. */
const isLong = (v: Worksheet['verdict'][number]) => v.kind === 'allergens' && v.lead.length + v.reason.length > 90
const cautions = ref(false)
const steps = defineModel<boolean>('steps', { required: true })
const everSteps = useEverOpen(steps)
const making = useMaking()
const whole = ref(false)
const inside = ref(false)
const everInside = useEverOpen(inside)
function whyEnergy() {
  inside.value = false
  bench.why = { figure: 'energy' }
}
</script>

<template>
  <section class="panel verdict" :class="{ whole }" aria-label="Verdict" aria-live="polite">
    <div class="clause make" @click="whole = !whole">
      <Icon name="pour" :size="26" />
      <div>
        <p v-if="of('portion')" data-verdict="portion">
          <b>{{ of('portion')?.lead }}</b><span>{{ unbroken(of('portion')?.reason) }}</span>
        </p>
        <p v-if="of('weigh')" data-verdict="weigh" class="weigh">
          <b>{{ unbroken(of('weigh')?.lead) }}</b><span>{{ unbroken(of('weigh')?.reason) }}</span>
        </p>
      </div>
    </div>
    <div
      v-for="v in clauses"
      :key="v.kind + v.lead"
      class="clause"
      :class="[v.kind, { coming: v.kind === 'heat' && heat.coming, long: isLong(v) }]"
      :data-verdict="v.kind"
      @click="whole = !whole">
      <Icon :name="icons[v.kind] ?? 'tick'" :size="26" />
      <p>
        <b>{{ unbroken(v.lead) }}</b><span>{{ unbroken(v.reason) }}</span>
      </p>
      <el-button v-if="v.kind === 'swap'" aria-label="Back to the base’s own lines" title="Back to the base’s own lines" @click.stop="bench.ownLines"
        ><Icon name="undo"
      /></el-button>
    </div>
    <div class="doors">
      <el-button class="whole-line" :aria-expanded="whole" @click="whole = !whole"
        ><Icon name="down" :class="{ up: whole }" /><span>{{ whole ? 'less' : 'all' }}</span></el-button
      >
      <el-button class="nutrition" @click="inside = true"><Icon name="allergen" /><span>What is in it</span></el-button>
      <el-button class="care" @click="cautions = true"
        ><Icon name="caution" /><span>{{ sheet.cautions.length }} {{ sheet.cautions.length === 1 ? 'caution' : 'cautions' }}</span></el-button
      >
      <el-button class="go" title="Weigh, mix and rest it, step by step (M)" :loading="making.beginning" @click="making.make()">Make this</el-button>
    </div>
    <MixDialog v-if="everSteps" v-model="steps" :sheet="sheet" />
    <HadDialog />
    <InsideDialog v-if="everInside" v-model="inside" :sheet="sheet" @why="whyEnergy" />
    <el-dialog v-model="cautions" title="Take care" width="min(560px, 96vw)" append-to-body>
      <ul>
        <li v-for="c in sheet.cautions" :key="c.text">{{ c.text }}</li>
        <li><AllergenLine :text="sheet.allergen_text" /></li>
      </ul>
    </el-dialog>
  </section>
</template>

<style scoped>
.verdict {
  display: flex;
  align-items: center;
  padding: 0 var(--s2) 0 0;
}
.clause {
  display: flex;
  gap: 8px;
  align-items: center;
  padding: 0 var(--s3);
  min-height: 52px;
  min-width: 0;
  flex: 1 1 auto;
  cursor: pointer;
}
.clause + .clause {
  border-left: 1.5px solid var(--hair);
}
.clause p {
  line-height: 1.2;
  font-size: 14px;
  min-width: 0;
}
b {
  display: block;
  font-size: 16px;
  font-weight: 750;
  margin-bottom: 2px;
  line-height: 1.1;
}
/* Two lines of each at most, the rest behind it; what it contains is never cut short. */
.make > div {
  min-width: 0;
}
.make p {
  display: flex;
  gap: 0 var(--s2);
  align-items: baseline;
}
.make b {
  margin: 0;
}
.make .weigh b {
  font-size: 14px;
  font-weight: 650;
}
.verdict:not(.whole) .make b,
.verdict:not(.whole) .make span {
  white-space: nowrap;
}
.verdict:not(.whole) .weigh span {
  overflow: hidden;
  text-overflow: ellipsis;
}
.whole .make p {
  display: block;
}
.verdict:not(.whole) .drift :is(b, span),
.verdict:not(.whole) .swap :is(b, span) {
  display: -webkit-box;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 2;
  overflow: hidden;
}
.make {
  flex: 4 1 200px;
  overflow: hidden;
}
.allergens {
  flex: 2 1 220px;
}
.drift,
.swap {
  flex: 1 1 176px;
  min-width: 176px;
}
.clause {
  padding: 0 10px;
}
.coming {
  opacity: 0.5;
}
.drift,
.allergens {
  color: var(--beet);
}
.drift p,
.allergens p {
  color: var(--ink-2);
}
.drift b,
.allergens b {
  color: var(--beet);
}
.doors {
  display: flex;
  gap: 6px;
  flex: none;
  margin-left: auto;
}
.doors .el-button {
  min-width: 48px;
  height: 48px;
  padding: 0 4px;
}
.doors .el-button:not(.go) :deep(> span) {
  flex-direction: column;
  gap: 1px;
  font-size: var(--t-mini);
  line-height: 1;
}
.doors .go {
  padding: 0 var(--s3);
}
.up {
  transform: rotate(180deg);
}
li {
  padding: var(--s1) 0;
}
/* Wide: the heat stands in the portion, in sight. */
@media (min-width: 1200px) {
  .verdict:not(.whole) .heat {
    display: none;
  }
}
@media (min-width: 701px) {
  .verdict:has(> .long),
  .whole {
    flex-wrap: wrap;
  }
  .clause.long {
    flex: 1 1 720px;
    min-height: 44px;
    padding: 4px var(--s3);
    border-left: 0;
    border-top: 1.5px solid var(--hair);
  }
}
/* Narrower: what it makes, what is off and what it contains; the list says what to weigh. */
@media (max-width: 1199px) {
  b {
    font-size: var(--t-body);
  }
  .make {
    flex: 1 1 150px;
  }
  .make p {
    display: block;
  }
  .make span {
    display: block;
    white-space: normal !important;
  }
  .drift,
  .swap,
  .allergens {
    flex-basis: 172px;
  }
  .verdict:not(.whole) .make .weigh,
  .verdict:not(.whole) .heat {
    display: none;
  }
}
@media (max-width: 700px) {
  .verdict {
    position: relative;
    flex-wrap: wrap;
    padding: var(--s1) var(--s2);
    row-gap: 2px;
  }
  .clause {
    min-height: 0;
    padding: 2px 0;
    flex: 1 1 100%;
  }
  .clause + .clause {
    border-left: 0;
  }
  .clause p {
    flex: 1;
  }
  .make {
    padding-right: 52px;
    min-height: 44px;
  }
  .clause .icon {
    width: 20px;
  }
  .drift b,
  .drift span,
  .swap b,
  .swap span {
    display: inline !important;
    margin-right: 6px;
  }
  .doors {
    width: 100%;
  }
  .verdict:not(.whole) .doors > :not(.whole-line),
  .doors .go {
    display: none;
  }
  .doors .whole-line {
    position: absolute;
    right: 2px;
    top: 2px;
    border-color: transparent;
    background: none;
  }
}
</style>
