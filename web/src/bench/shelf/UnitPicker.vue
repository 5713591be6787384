<script setup lang="ts">
import { ref } from 'vue'
import { api, got, type Schemas } from '@/api/client'
import { unitLabels } from '@/bench/choices'

const unit = defineModel<Schemas['Unit']>({ required: true })
const props = defineProps<{ ingredient: string; label: string }>()

/** The program says which units fit; they are asked for when the list is opened. */
const units = ref<Schemas['Unit'][]>([])
async function opened(open: boolean) {
  if (!open || units.value.length) return
  const found = await got(api.GET('/ingredients', { params: { query: { q: props.ingredient, limit: 20 } } })).catch(() => undefined)
  units.value = found?.items.find((i) => i.id === props.ingredient)?.units ?? [unit.value]
}
</script>

<template>
  <el-select v-model="unit" :aria-label="`Unit of ${label}`" @visible-change="opened">
    <el-option v-for="u in units.length ? units : [unit]" :key="u" :value="u" :label="unitLabels[u]" />
  </el-select>
</template>
