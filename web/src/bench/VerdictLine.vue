<script setup lang="ts">
import { ref } from 'vue'
import type { Worksheet } from '@/api/client'
import Icon from '@/parts/Icon.vue'
import type { IconName } from '@/parts/icons'

defineProps<{ sheet: Worksheet }>()

const icons: Record<string, IconName> = { weigh: 'scale', portion: 'pour', drift: 'caution', allergens: 'allergen' }
const cautions = ref(false)
</script>

<template>
  <section class="panel verdict" aria-label="Verdict" aria-live="polite">
    <div v-for="v in sheet.verdict" :key="v.kind + v.lead" class="clause" :class="v.kind" :data-verdict="v.kind">
      <Icon :name="icons[v.kind] ?? 'tick'" :size="26" />
      <p><b>{{ v.lead }}</b>{{ v.reason }}</p>
    </div>
    <el-button class="cautions" @click="cautions = true"><Icon name="caution" />{{ sheet.cautions.length }} cautions</el-button>
    <el-dialog v-model="cautions" title="Mind" width="560" append-to-body>
      <ul>
        <li v-for="c in sheet.cautions" :key="c.text">{{ c.text }}</li>
        <li v-if="sheet.may_contain.length">May also contain {{ sheet.may_contain.join(', ') }}: some makes do, the pack decides.</li>
      </ul>
    </el-dialog>
  </section>
</template>

<style scoped>
.verdict { display: flex; align-items: center; padding: 0 var(--s2) 0 0; }
.clause { display: flex; gap: 10px; align-items: center; padding: 0 var(--s4); min-height: 52px; min-width: 0; flex: 1 1 auto; }
.clause + .clause { border-left: 1.5px solid var(--hair); }
.clause p { line-height: 1.2; font-size: 14px; min-width: 0; }
b { display: block; font-size: var(--t-lead); font-weight: 750; margin-bottom: 2px; }
.drift, .allergens { color: var(--beet); }
.drift p, .allergens p { color: var(--ink-2); }
.drift b, .allergens b { color: var(--beet); }
.cautions { flex: none; margin-left: auto; }
.cautions :deep(.icon) { margin-right: 6px; }
li { padding: var(--s1) 0; }
@media (max-width: 900px) {
  .verdict { flex-wrap: wrap; padding: var(--s1) var(--s2); }
  .clause { min-height: 44px; padding: 0 var(--s2); }
  .clause + .clause { border-left: 0; }
  .clause { flex-basis: 260px; }
}
</style>
