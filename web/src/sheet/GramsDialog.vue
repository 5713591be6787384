<script setup lang="ts">
import AmountField from '@/parts/AmountField.vue'
import { nextTick, ref, watch } from 'vue'

/** A weight in grams, typed. */
const open = defineModel<boolean>({ required: true })
const props = defineProps<{ title: string; label: string; says?: string; keep: (grams: number) => Promise<string> }>()
const grams = ref<number>()
const trouble = ref('')
const field = ref<{ focus: () => void }>()
watch(open, async (is) => {
  if (!is) return
  grams.value = undefined
  trouble.value = ''
  await nextTick()
  setTimeout(() => field.value?.focus())
})
/** What the program refuses is said here, and what was typed stays. */
async function submit() {
  trouble.value = grams.value === undefined ? 'Give the weight in grams.' : await props.keep(grams.value)
  if (!trouble.value) open.value = false
}
</script>

<template>
  <el-dialog v-model="open" :title="title" width="min(420px, 94vw)" append-to-body>
    <form novalidate @submit.prevent="submit">
      <p v-if="says" class="muted">{{ says }}</p>
      <label>
        {{ label }}
        <span class="field"><AmountField ref="field" v-model="grams" :label="`${label}, in g`" :aria-invalid="!!trouble" /> g</span>
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
.field .amount-field {
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
