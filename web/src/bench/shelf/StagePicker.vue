<script setup lang="ts">
import type { Schemas } from '@/api/client'
import { stages } from '@/bench/choices'

const stage = defineModel<Schemas['Stage']>()
defineProps<{ label: string }>()
</script>

<template>
  <el-select v-model="stage" :aria-label="`When ${label} goes in`">
    <el-option v-for="s in stages" :key="s.value" :value="s.value" :label="s.label" />
  </el-select>
</template>
