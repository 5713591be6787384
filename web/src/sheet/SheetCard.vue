<script setup lang="ts">
import Icon from '@/parts/Icon.vue'
import { useSheet } from './sheet'

/** What fills the middle of the sheet: what there is to see, and below it what can be done, taking back first. */
defineProps<{ back?: string; loose?: boolean }>()
const emit = defineEmits<{ back: [] }>()
const sheet = useSheet()
</script>

<template>
  <div class="sheet-card">
    <slot />
    <div class="acts" :class="{ loose }">
      <el-button
        class="big"
        :disabled="!sheet.last"
        :title="sheet.last ? `Take back: ${sheet.last.text}` : undefined"
        @click="back === undefined ? sheet.takeBack() : emit('back')"
        ><Icon name="undo" :size="24" />{{ back ?? 'Take back' }}</el-button
      >
      <slot name="acts" />
    </div>
  </div>
</template>

<style scoped>
.sheet-card {
  display: flex;
  flex-direction: column;
  gap: var(--s3);
  min-width: 0;
  min-height: 0;
  padding: var(--s4) 20px;
  overflow-y: auto;
}
/* What can be done is in sight, however much there is to see. */
.acts {
  position: sticky;
  bottom: calc(-1 * var(--s4));
  z-index: 2;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s2);
  margin: auto 0 calc(-1 * var(--s4));
  padding: var(--s1) 0 var(--s4);
  background: var(--enamel);
}
.acts.loose {
  position: static;
}
@media (max-width: 700px) {
  .sheet-card {
    padding: var(--s3) var(--s3) 0;
    overflow: visible;
  }
  .acts {
    bottom: 0;
    margin-bottom: 0;
    padding-bottom: var(--s1);
  }
  .acts :deep(.el-button) {
    flex: 1 1 auto;
  }
  .acts :deep(.next) {
    flex-basis: 100%;
  }
}
</style>
