<script setup lang="ts">
import FigureField from '@/parts/FigureField.vue'
import { computed, ref, watch } from 'vue'
import { say } from '@/parts/say'
import AmountField from '@/parts/AmountField.vue'
import { useBench } from '@/bench/bench'

const shown = defineModel<boolean>({ required: true })
const bench = useBench()
const by = ref<'count' | 'flour' | 'left'>('count')
const count = ref(12)
const flour = ref(500)
const line = ref<string>()
const left = ref(300)
const trouble = ref('')
const lines = computed(() => bench.sheet?.lines ?? [])

watch(
  shown,
  (open) => {
    if (!open || !bench.sheet) return
    trouble.value = ''
    count.value = bench.sheet.portion.count || 12
    flour.value = Number(bench.sheet.batter.flour_g.toFixed(0))
    // Another variation may lie on the bench by now, with other lines.
    if (!lines.value.some((l) => l.id === line.value)) line.value = bench.shelf[0]?.addition.id ?? lines.value[0]?.id
  },
  { immediate: true },
)

async function scale() {
  try {
    const said = await bench.scale(
      by.value === 'count' ? { count: count.value } : by.value === 'flour' ? { flour_g: flour.value } : { line: line.value, amount_g: left.value },
    )
    shown.value = false
    if (said.length) say({ message: said.join(' '), duration: 8000, showClose: true })
  } catch (e) {
    trouble.value = (e as Error).message
  }
}
</script>

<template>
  <el-dialog v-model="shown" append-to-body title="Scale the batch" width="min(480px, 96vw)">
    <form novalidate @submit.prevent="scale">
      <el-radio-group v-model="by" class="pick" aria-label="Scale by">
        <el-radio-button value="count">portions</el-radio-button><el-radio-button value="flour">flour</el-radio-button
        ><el-radio-button value="left">what is left</el-radio-button>
      </el-radio-group>
      <p v-if="by === 'count'" class="row">
        <span>I want</span><FigureField :step="1" v-model="count" :limits="{ low: 1, high: 5000 }" label="Portions" /><span>portions</span>
      </p>
      <p v-else-if="by === 'flour'" class="row">
        <span>The base gets</span><AmountField v-model="flour" class="much" unit="g" label="Flour in grams" /><span>g flour</span>
      </p>
      <p v-else class="row">
        <span>I have</span
        ><AmountField
          v-model="left"
          class="much"
          unit="g"
          :ingredient="lines.find((l) => l.id === line)?.ingredient"
          label="Grams that are left" /><span>g of</span>
        <el-select v-model="line" aria-label="Of what" class="of"
          ><el-option v-for="l in lines" :key="l.id" :value="l.id" :label="l.label"
        /></el-select>
      </p>
      <p v-if="trouble" class="trouble" role="alert"><i class="sign high" />{{ trouble }}</p>
      <el-button native-type="submit" class="go">Scale it</el-button>
    </form>
  </el-dialog>
</template>

<style scoped>
form {
  display: grid;
  gap: var(--s4);
  justify-items: start;
}
.row {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s2);
}
.much {
  width: 110px;
}
.of {
  width: 160px;
}
.trouble {
  color: var(--beet);
  display: flex;
  gap: var(--s2);
  align-items: center;
}
</style>
