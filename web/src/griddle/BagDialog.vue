<script setup lang="ts">
import FigureField from '@/parts/FigureField.vue'
import { computed, ref, watch } from 'vue'
import { useBoard } from './board'
import { msOf } from './words'

/** What lies flat goes into packs, each with its label. */
const tray = defineModel<string | undefined>({ required: true })
const board = useBoard()
const flat = computed(() => board.state?.flat.find((f) => f.key === tray.value))
const bowl = computed(() => board.bowls.get(flat.value?.bowl ?? ''))
const each = ref(1)
const says = ref('')
const open = computed({ get: () => !!flat.value, set: (v) => !v && (tray.value = undefined) })
watch(
  () => tray.value,
  () => (each.value = flat.value?.each ?? 1),
)
const early = computed(() => flat.value && board.nowMs < msOf(flat.value.due_at))
async function bag() {
  says.value = await board.tell({ kind: 'bagged', tray: tray.value, count: each.value }, `bagged ${flat.value?.count}`, true)
  if (!says.value) tray.value = undefined
}
</script>

<template>
  <el-dialog v-model="open" :title="`Bag ${flat?.count ?? ''} ${bowl?.name ?? ''}`" width="min(480px, 96vw)" append-to-body>
    <form @submit.prevent="bag">
      <el-form-item label="In a pack" :error="says">
        <FigureField v-model="each" :limits="{ low: 1, high: flat?.count ?? 1 }" :step="1" label="Pieces in a pack" />
      </el-form-item>
      <p>So many in each, what is left over in the last one. Every pack gets its label: name, what it contains, made on, use by.</p>
      <p v-if="bowl" class="well contains">
        {{ bowl.allergen_text }}<template v-if="bowl.carried?.length">. The same plate had {{ bowl.carried.join(', ') }} on it before.</template>
      </p>
      <p v-if="early" class="muted">They may still stick: bagged now they freeze into one block.</p>
      <p class="acts"><el-button class="go" native-type="submit">Bag them</el-button></p>
    </form>
  </el-dialog>
</template>

<style scoped>
form {
  display: grid;
  gap: var(--s2);
}
.contains {
  padding: var(--s2) var(--s3);
}
</style>
