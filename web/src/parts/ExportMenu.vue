<script setup lang="ts">
import { computed } from 'vue'
import Icon from './Icon.vue'

/** One base, variation or sauce out in an open format. */
const props = defineProps<{ kind: 'bases' | 'variations' | 'sauces'; id: string; name: string }>()
const all = [
  { as: 'json', label: 'JSON, with everything' },
  { as: 'jsonld', label: 'structured data (JSON-LD)' },
  { as: 'markdown', label: 'card (Markdown)' },
  { as: 'csv', label: 'ledger (CSV)' },
  { as: 'text', label: 'plain text' },
]
const formats = computed(() => (props.kind === 'sauces' ? all.filter((f) => ['json', 'markdown', 'text'].includes(f.as)) : all))
function take(kind: string, id: string, as: string) {
  const a = document.createElement('a')
  a.href = `/api/v1/exports/${kind}/${encodeURIComponent(id)}?as=${as}`
  a.download = ''
  a.click()
}
</script>

<template>
  <el-dropdown trigger="click" @command="take(kind, id, $event as string)">
    <el-button class="ghost take" :aria-label="`Export ${name}`" title="Export"><Icon name="out" /></el-button>
    <template #dropdown>
      <el-dropdown-menu
        ><el-dropdown-item v-for="f in formats" :key="f.as" :command="f.as" :data-as="f.as">{{ f.label }}</el-dropdown-item></el-dropdown-menu
      >
    </template>
  </el-dropdown>
</template>

<style scoped>
.take {
  width: var(--touch);
  padding: 0;
}
</style>
