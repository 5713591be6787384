<script setup lang="ts">
import { computed, ref } from 'vue'
import { useBench } from './bench'
import { useHeat } from './heat/heat'
import InsideDialog from '@/bench/dialogs/InsideDialog.vue'
import MixDialog from '@/bench/dialogs/MixDialog.vue'
import AllergenLine from '@/parts/AllergenLine.vue'
import type { Worksheet } from '@/api/client'
import Icon from '@/parts/Icon.vue'
import { unbroken } from '@/parts/figures'
import type { IconName } from '@/parts/icons'

const props = defineProps<{ sheet: Worksheet }>()

const icons: Record<string, IconName> = { weigh: 'scale', portion: 'pour', drift: 'caution', swap: 'swap', heat: 'griddle', allergens: 'allergen' }
const bench = useBench()
const heat = useHeat()
/** The heat comes a moment later and stands before what it contains. */
const clauses = computed(() => {
  const all = [...props.sheet.verdict]
  if (heat.clause) all.splice(all.length - 1, 0, heat.clause)
  return all
})
/** What it contains is never cut short: much of it gets a row of its own. */
const isLong = (v: Worksheet['verdict'][number]) => v.kind === 'allergens' && v.lead.length + v.reason.length > 90
const cautions = ref(false)
const mix = defineModel<boolean>('making', { required: true })
const whole = ref(false)
const inside = ref(false)
function whyEnergy() {
  inside.value = false
  bench.why = { figure: 'energy' }
}
</script>

<template>
  <section class="panel verdict" :class="{ whole }" aria-label="Verdict" aria-live="polite">
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
      <el-button class="whole-line" :aria-expanded="whole" aria-label="The whole verdict" title="The whole verdict" @click="whole = !whole"
        ><Icon name="down" :class="{ up: whole }"
      /></el-button>
      <el-button aria-label="Nutrition and allergens" title="Nutrition and allergens" @click="inside = true"><Icon name="allergen" /></el-button>
      <el-button :aria-label="`${sheet.cautions.length} cautions`" title="Cautions" @click="cautions = true"
        ><Icon name="caution" />{{ sheet.cautions.length }}</el-button
      >
      <el-button class="go" title="How to mix and cook it (M)" @click="mix = true">Make this</el-button>
    </div>
    <MixDialog v-model="mix" :sheet="sheet" />
    <InsideDialog v-model="inside" :sheet="sheet" @why="whyEnergy" />
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
.verdict:not(.whole) .clause:not(.allergens) b,
.verdict:not(.whole) .clause:not(.allergens) span {
  display: -webkit-box;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 2;
  overflow: hidden;
}
.portion {
  flex: none;
}
.portion p {
  max-width: 124px;
}
.clause {
  padding: 0 10px;
}
.weigh {
  flex: 3 1 240px;
}
.allergens {
  flex: 2 1 220px;
}
.drift {
  flex: 1 1 150px;
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
  padding: 0 10px;
}
.doors .go {
  padding: 0 var(--s4);
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
  .drift,
  .allergens {
    flex-basis: 172px;
  }
  .verdict:not(.whole) .weigh,
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
  .portion p {
    max-width: none;
    padding-right: 48px;
  }
  .clause .icon {
    width: 20px;
  }
  .portion b,
  .drift b {
    display: inline !important;
    margin-right: 6px;
  }
  .portion span,
  .drift span {
    display: inline !important;
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
