<script setup lang="ts">
import type { Worksheet } from '@/api/client'

const shown = defineModel<boolean>({ required: true })
defineProps<{ sheet: Worksheet }>()
</script>

<template>
  <el-dialog v-model="shown" title="How to mix it" width="min(640px, 96vw)" append-to-body>
    <ol>
      <li v-for="m in sheet.mixing" :key="m.step">{{ m.text }}</li>
    </ol>
    <p v-if="sheet.batter.pours?.length" class="pours well">
      <span v-for="p in sheet.batter.pours" :key="p.when"><small>{{ p.when }}<template v-if="p.at_min"> ({{ p.at_min }} min)</template></small><b>{{ p.class }}</b></span>
    </p>
  </el-dialog>
</template>

<style scoped>
ol { margin: 0; padding-left: var(--s5); font-size: var(--t-lead); line-height: 1.35; }
li { padding: 5px 0 5px var(--s1); }
li::marker { font-weight: 750; }
.pours { display: flex; justify-content: space-around; margin-top: var(--s4); padding: var(--s3); }
.pours span { display: grid; text-align: center; }
small { color: var(--ink-2); font-size: var(--t-mini); }
b { font-size: var(--t-title); }
</style>
