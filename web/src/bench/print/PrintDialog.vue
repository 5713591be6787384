<script setup lang="ts">
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import { useKitchen } from '@/kitchen/kitchen'
import { useBench } from '@/bench/bench'
import { useHeat } from '@/bench/heat/heat'
import PrintCard from './PrintCard.vue'
import Icon from '@/parts/Icon.vue'

/** What will be on the paper, before it is on the paper. */
const shown = defineModel<boolean>({ required: true })
const bench = useBench()
const heat = useHeat()
const kitchen = useKitchen()
const kind = ref<'batch' | 'variation'>('batch')
const at = ref('')
watch(
  shown,
  (open) => {
    if (open) at.value = 'printed ' + new Date().toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' })
  },
  { immediate: true },
)
const ready = computed(() => !!bench.sheet && !bench.trouble && !bench.working && (!heat.coming || !!heat.trouble))

/** The same card in the preview and on the paper. */
const card = computed(() =>
  bench.doc && bench.sheet
    ? { kind: kind.value, doc: bench.doc, sheet: bench.sheet, heat: heat.trouble ? undefined : heat.sheet, kitchen: kitchen.own?.name, at: at.value }
    : undefined,
)
const print = () => window.print()

/** While it is open, this is what the page prints, also by the browser's own menu. */
const prints = (card: boolean) => document.documentElement.classList.toggle('printing', card)
watch(shown, prints, { immediate: true })
onBeforeUnmount(() => prints(false))
</script>

<template>
  <el-dialog v-model="shown" title="Print a card" width="min(640px, 96vw)" top="4vh" append-to-body class="print-dialog">
    <div class="how">
      <el-radio-group v-model="kind" class="pick" aria-label="Which card">
        <el-radio-button value="batch">this batch, A5</el-radio-button><el-radio-button value="variation">the variation, A6</el-radio-button>
      </el-radio-group>
      <el-button class="go" :disabled="!ready" @click="print"><Icon name="print" />Print</el-button>
    </div>
    <p v-if="!ready" class="muted" role="status">{{ bench.trouble ?? 'Working it out' }}</p>
    <div v-if="card" class="preview" tabindex="0" role="region" aria-label="What will be on the paper">
      <PrintCard v-bind="card" />
    </div>
    <Teleport to="body">
      <div v-if="shown && card" class="print-root" aria-hidden="true">
        <PrintCard v-bind="card" />
      </div>
    </Teleport>
  </el-dialog>
</template>

<style scoped>
.how {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: var(--s2);
  padding-bottom: var(--s3);
}
.preview {
  max-height: 66vh;
  overflow: auto;
  padding: 8mm;
  background: #fff;
  border: 1.5px solid var(--edge);
  border-radius: var(--s2);
}
@media (max-width: 700px) {
  .preview {
    padding: 3mm;
  }
  .preview :deep(.paper) {
    zoom: 0.6;
  }
}
</style>

<style>
@page batch {
  size: A5;
  margin: 8mm;
}
@page variation {
  size: 105mm 148mm;
  margin: 7mm;
}
.print-root {
  display: none;
}
@media print {
  html,
  body {
    height: auto !important;
    overflow: visible !important;
    background: #fff !important;
  }
  html.printing body > :not(.print-root) {
    display: none !important;
  }
  html.printing .print-root {
    display: block;
  }
  .print-root .batch {
    page: batch;
  }
  .print-root .variation {
    page: variation;
  }
}
</style>
