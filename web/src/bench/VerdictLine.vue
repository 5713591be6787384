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

const icons: Record<string, IconName> = { weigh: 'scale', portion: 'pour', drift: 'caution', heat: 'griddle', allergens: 'allergen' }
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
const mix = ref(false)
const inside = ref(false)
function whyEnergy() {
  inside.value = false
  bench.why = { figure: 'energy' }
}
</script>

<template>
  <section class="panel verdict" aria-label="Verdict" aria-live="polite">
    <div
      v-for="v in clauses"
      :key="v.kind + v.lead"
      class="clause"
      :class="[v.kind, { coming: v.kind === 'heat' && heat.coming, long: isLong(v) }]"
      :data-verdict="v.kind">
      <Icon :name="icons[v.kind] ?? 'tick'" :size="26" />
      <p :title="v.kind === 'allergens' ? undefined : `${v.lead}: ${v.reason}`">
        <b>{{ unbroken(v.lead) }}</b><span>{{ unbroken(v.reason) }}</span>
      </p>
    </div>
    <div class="doors">
      <el-button @click="mix = true"><Icon name="list" />Mix</el-button>
      <el-button @click="inside = true"><Icon name="allergen" />Inside</el-button>
      <el-button :aria-label="`${sheet.cautions.length} cautions`" @click="cautions = true"
        ><Icon name="caution" />{{ sheet.cautions.length }}</el-button
      >
    </div>
    <MixDialog v-model="mix" :sheet="sheet" />
    <InsideDialog v-model="inside" :sheet="sheet" @why="whyEnergy" />
    <el-dialog v-model="cautions" title="Mind" width="min(560px, 96vw)" append-to-body>
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
  font-size: var(--t-lead);
  font-weight: 750;
  margin-bottom: 2px;
  line-height: 1.1;
}
/* Two lines of each at most, the rest behind it; what it contains is never cut short. */
.clause:not(.allergens) b,
.clause:not(.allergens) span {
  display: -webkit-box;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 2;
  overflow: hidden;
}
.clause.weigh b {
  -webkit-line-clamp: 3;
}
.portion {
  flex: none;
}
.portion b {
  white-space: nowrap;
}
.portion p {
  max-width: 132px;
}
.weigh {
  flex-grow: 3;
}
.heat {
  min-width: 186px;
}
@media (min-width: 901px) {
  .verdict:has(> .long) {
    flex-wrap: wrap;
  }
  .clause.long {
    flex: 1 1 720px;
    min-height: 44px;
    padding: 4px var(--s3);
    border-left: 0;
    border-top: 1.5px solid var(--hair);
  }
  .weigh {
    min-width: 226px;
  }
  .drift {
    min-width: 150px;
  }
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
li {
  padding: var(--s1) 0;
}
@media (max-width: 900px) {
  .verdict {
    flex-wrap: wrap;
    padding: var(--s1) var(--s2);
  }
  .clause {
    min-height: 44px;
    padding: 0 var(--s2);
  }
  .clause + .clause {
    border-left: 0;
  }
  .clause {
    flex-basis: 260px;
  }
}
</style>
