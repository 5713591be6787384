<script setup lang="ts">
import AmountField from '@/parts/AmountField.vue'
import { ask } from '@/parts/ask'
import { computed, ref } from 'vue'
import { said, type Schemas, type Worksheet } from '@/api/client'
import { useBench } from '@/bench/bench'

/** A ladle of it on a cold plate, by ruler or in words: the program says what to stir in. */
const props = defineProps<{ sheet: Worksheet; ruler?: boolean }>()
const bench = useBench()
const rested = ref(false)
const ran = ref<number>()
const answer = ref<Schemas['Correction']>()
const trouble = ref('')
const stirred = ref<string[]>([]) // since the bowl was mixed
const ladle = computed(() => props.sheet.portion.volume_ml)
const looks: { value: NonNullable<Schemas['PourTest']['says']>; label: string }[] = [
  { value: 'mounds', label: 'stiffer than it should' },
  { value: 'just_spreads', label: 'as it should' },
  { value: 'runs', label: 'runs more' },
]
async function pour(test: Schemas['PourTest']) {
  const variation = bench.asked()
  if (!variation) return
  trouble.value = ''
  try {
    answer.value = await ask('/correction', { variation, rested: rested.value, test })
  } catch (e) {
    answer.value = undefined
    trouble.value = said(e)
  }
}
const measured = (mm: number | null | undefined) => mm && pour({ volume_ml: ladle.value, diameter_mm: mm })
function again() {
  stirred.value.push(...(answer.value?.add.map((a) => `${a.grams} g`) ?? []))
  answer.value = undefined
  ran.value = undefined
}
</script>

<template>
  <section class="spread-test well" aria-label="Test it">
    <el-radio-group v-model="rested" class="pick" aria-label="When it is tested" @change="answer = undefined">
      <el-radio-button :value="false">just mixed</el-radio-button><el-radio-button :value="true">after the rest</el-radio-button>
    </el-radio-group>
    <label v-if="ruler" class="ruler"
      >{{ ladle }} ml ran to <AmountField v-model="ran" placeholder="?" label="How wide it ran, in mm" @update:model-value="measured" /> mm, or</label
    >
    <span v-if="sheet.batter.should" class="should">Poured from the ladle, {{ sheet.batter.should }}</span>
    <span class="looks"
      ><el-button v-for="l in looks" :key="l.value" @click="pour({ says: l.value })">{{ l.label }}</el-button></span
    >
    <p v-if="trouble" role="alert"><i class="sign high" /> {{ trouble }}</p>
    <p v-if="answer" class="answer" role="status">
      <b v-for="a in answer.add" :key="a.line" class="grams"
        >+ {{ a.grams }} g<small v-if="a.measure">, {{ a.measure }}</small></b
      >
      <span
        >{{ answer.text
        }}<small v-if="answer.target_diameter_mm"> It should run to {{ answer.target_diameter_mm.toFixed(0) }} mm by now.</small></span
      >
      <el-button v-if="answer.add.length" class="go" @click="again">Stirred in</el-button>
    </p>
    <p v-if="stirred.length" class="so-far">
      <small>Stirred in so far: {{ stirred.join(' and ') }}.</small>
    </p>
  </section>
</template>

<style scoped>
.spread-test {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s2) var(--s3);
  margin-top: var(--s2);
  padding: var(--s3);
}
.should {
  flex: 1 0 100%;
}
.ruler {
  display: inline-flex;
  align-items: center;
  gap: var(--s2);
}
.amount-field {
  width: 84px;
}
.looks {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s2);
}
.looks .el-button {
  margin: 0;
}
.answer {
  flex: 1 1 100%;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s2) var(--s3);
}
.answer span {
  flex: 1 1 240px;
}
.grams {
  font-size: var(--t-figure);
}
small {
  color: var(--ink-2);
  font-size: var(--t-mini);
  font-weight: 500;
}
.so-far {
  flex: 1 1 100%;
}
</style>
