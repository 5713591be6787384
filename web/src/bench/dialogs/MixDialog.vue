<script setup lang="ts">
import { computed } from 'vue'
import type { Worksheet } from '@/api/client'
import AllergenLine from '@/parts/AllergenLine.vue'
import { useBench } from '@/bench/bench'
import { useHeat } from '@/bench/heat/heat'
import SpreadTest from './SpreadTest.vue'

const shown = defineModel<boolean>({ required: true })
const props = defineProps<{ sheet: Worksheet }>()
const bench = useBench()
const heat = useHeat()
/** With the steps at the plate, once they are there for this bowl. */
const steps = computed(() => (heat.coming ? undefined : heat.sheet?.mixing) ?? props.sheet.mixing)
const skipped = computed(() => bench.doc?.kitchen?.rest_min === 0)
const skipRest = () => bench.change((d) => (d.kitchen = { ...d.kitchen, rest_min: 0 }))
const restAgain = () =>
  bench.change((d) => {
    if (!d.kitchen) return
    delete d.kitchen.rest_min
    if (!Object.keys(d.kitchen).length) delete d.kitchen
  })
</script>

<template>
  <el-dialog v-model="shown" title="How to mix and cook it" width="min(640px, 96vw)" append-to-body>
    <ol>
      <li v-for="m in steps" :key="m.step" :data-step="m.code">
        {{ m.text }}
        <p v-if="m.code === 'rest'" class="skip">
          <el-button @click="skipRest">Skip the rest</el-button><small>{{ m.skip }}</small>
        </p>
        <SpreadTest v-if="m.code === 'test'" :sheet="sheet" :ruler="m.ruler" />
      </li>
    </ol>
    <p v-if="heat.coming" class="skip"><small>The steps at the plate are coming.</small></p>
    <p v-if="skipped" class="skip"><el-button @click="restAgain">Rest it after all</el-button><small>You skipped the rest.</small></p>
    <p v-if="sheet.batter.pours?.length" class="pours well">
      <span v-for="p in sheet.batter.pours" :key="p.when"
        ><small
          >{{ p.when }}<template v-if="p.at_min"> ({{ p.at_min }} min)</template></small
        ><b>{{ p.class }}</b></span
      >
    </p>
    <AllergenLine :text="sheet.allergen_text" class="allergens" />
  </el-dialog>
</template>

<style scoped>
ol {
  margin: 0;
  padding-left: var(--s5);
  font-size: var(--t-lead);
  line-height: 1.35;
}
li {
  padding: 5px 0 5px var(--s1);
}
li::marker {
  font-weight: 750;
}
.skip {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s2) var(--s3);
  padding-top: var(--s1);
}
.skip small {
  flex: 1;
  min-width: 180px;
}
.pours {
  display: flex;
  justify-content: space-around;
  margin-top: var(--s4);
  padding: var(--s3);
}
.pours span {
  display: grid;
  text-align: center;
}
small {
  color: var(--ink-2);
  font-size: var(--t-mini);
}
b {
  font-size: var(--t-title);
}
.allergens {
  padding-top: var(--s3);
}
</style>
