<script setup lang="ts">
import { nextTick, ref, watch } from 'vue'

/** A weight in grams, typed. */
const open = defineModel<boolean>({ required: true })
const props = defineProps<{ title: string; label: string; most?: number; says?: string }>()
const emit = defineEmits<{ grams: [number] }>()
const grams = ref<number | null>(null)
const trouble = ref('')
const field = ref<{ focus: () => void }>()
const mostG = 100_000
watch(open, async (is) => {
  if (!is) return
  grams.value = null
  trouble.value = ''
  await nextTick()
  setTimeout(() => field.value?.focus())
})
function keep() {
  const g = grams.value
  const most = props.most ?? mostG
  if (g === null || !(g >= 0)) trouble.value = 'Give the weight in grams.'
  else if (g > most) trouble.value = `That is more than there is: ${most.toFixed(0)} g at most.`
  else {
    emit('grams', g)
    open.value = false
  }
}
</script>

<template>
  <el-dialog v-model="open" :title="title" width="min(420px, 94vw)" append-to-body>
    <form novalidate @submit.prevent="keep">
      <p v-if="says" class="muted">{{ says }}</p>
      <label>
        {{ label }}
        <span class="field"
          ><el-input-number
            ref="field"
            v-model="grams"
            :controls="false"
            inputmode="decimal"
            :aria-label="`${label}, in g`"
            :aria-invalid="!!trouble" />
          g</span
        >
      </label>
      <p v-if="trouble" class="fault" role="alert">{{ trouble }}</p>
      <el-button class="big go" native-type="submit">That much</el-button>
    </form>
  </el-dialog>
</template>

<style scoped>
form {
  display: grid;
  gap: var(--s3);
}
label {
  display: grid;
  gap: var(--s1);
  font-weight: 650;
}
.field {
  display: flex;
  align-items: center;
  gap: var(--s2);
  font-size: 26px;
}
.field .el-input-number {
  width: 190px;
}
.field :deep(.el-input__wrapper) {
  padding: 0 var(--s3);
}
.field :deep(.el-input__inner) {
  height: 60px;
  font-size: 34px;
  font-weight: 750;
}
.fault {
  color: var(--beet);
}
</style>
