<script setup lang="ts">
import Icon from './Icon.vue'

/** One base or variation out in an open format. */
defineProps<{ kind: 'bases' | 'variations'; id: string; name: string }>()
const formats = [
  { as: 'json', label: 'JSON, with everything' },
  { as: 'jsonld', label: 'structured data (JSON-LD)' },
  { as: 'markdown', label: 'card (Markdown)' },
  { as: 'csv', label: 'ledger (CSV)' },
  { as: 'text', label: 'plain text' },
]
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
