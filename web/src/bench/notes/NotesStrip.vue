<script setup lang="ts">
import { computed } from 'vue'
import type { Worksheet } from '@/api/client'
import { unbroken } from '@/parts/figures'

/** What is to be watched stands in sight, one after another; the rest is behind the count. */
const props = defineProps<{ sheet: Worksheet; open: boolean }>()
const emit = defineEmits<{ open: [] }>()
const warnings = computed(() => props.sheet.notes.filter((n) => n.kind === 'warning'))
const notes = computed(() => props.sheet.notes.filter((n) => n.kind !== 'known'))
const first = computed(() => warnings.value[0] ?? notes.value[0])
const known = computed(() => props.sheet.notes.length - notes.value.length)
const text = computed(() => first.value?.text ?? (known.value ? 'It is as it was written: nothing to mind.' : ''))
const count = computed(() => {
  if (!notes.value.length) return `${known.value} known of it`
  if (warnings.value.length > 1) return `${warnings.value.length} to watch, ${notes.value.length} notes`
  return notes.value.length === 1 ? '1 note' : `${notes.value.length} notes`
})
</script>

<template>
  <section v-if="text" class="strip" :class="{ warning: warnings.length }" aria-label="Notes">
    <i class="sign" :class="warnings.length ? 'high' : 'ring'" />
    <p :title="text">{{ unbroken(text) }}</p>
    <el-button :aria-expanded="open" @click="emit('open')">{{ count }}</el-button>
  </section>
</template>

<style scoped>
.strip {
  display: flex;
  align-items: center;
  gap: var(--s2);
  min-height: 46px;
  padding: 1px var(--s1) 1px var(--s3);
  border-radius: var(--r-well);
  background: var(--well-2);
  font-size: 14px;
  line-height: 1.2;
}
.warning {
  background: var(--beet-wash);
  color: var(--beet);
  font-weight: 600;
}
p {
  flex: 1;
  min-width: 0;
  display: -webkit-box;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 2;
  overflow: hidden;
}
.el-button {
  flex: none;
  max-width: 104px;
  white-space: normal;
  line-height: 1.15;
  font-size: 14px;
  padding: 0 var(--s2);
}
@media (max-width: 1199px) {
  p {
    -webkit-line-clamp: 4;
  }
}
</style>
