<script setup lang="ts">
import { letterKeys } from '@/parts/settings'

const shown = defineModel<boolean>({ required: true })
const keys: [string, string][] = [
  ['/', 'find an addition'],
  ['Ctrl+K', 'go to another variation'],
  ['Ctrl+Z', 'undo'],
  ['Ctrl+Shift+Z', 'redo'],
  ['?', 'these keys'],
  ['Esc', 'back'],
  ['↑ ↓', 'the line before, the line after'],
  ['− +', 'less, more of the addition in hand; also [ ]; ten steps with Shift'],
  ['1 to 5', 'hold back liquid, build up flour, dry the addition, shared, leave it'],
  ['F', 'the next form'],
  ['G', 'grams or cups'],
  ['P', 'pin the row in hand'],
  ['H', 'the heat, and back to the list'],
  ['B', 'the plain base, for comparison'],
]
</script>

<template>
  <el-dialog v-model="shown" title="Keys" width="min(520px, 96vw)">
    <dl>
      <template v-for="[k, what] in keys" :key="k"
        ><dt>
          <kbd>{{ k }}</kbd>
        </dt>
        <dd>{{ what }}</dd></template
      >
    </dl>
    <el-switch v-model="letterKeys" active-text="Keys of one letter are on" />
  </el-dialog>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: var(--s2) var(--s4);
  margin: 0 0 var(--s4);
  align-items: center;
}
dd {
  margin: 0;
}
</style>
