<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import Icon from '@/parts/Icon.vue'
import { unitsShown } from '@/parts/settings'
import { useBench } from './bench'
import { forms } from './choices'
import SaveChip from './SaveChip.vue'
import VariationTitle from './VariationTitle.vue'

const emit = defineEmits<{ variations: []; versions: []; keys: [] }>()
const bench = useBench()
const form = computed({
  get: () => bench.doc?.form,
  set: (v: Schemas['Form'] | undefined) => v && bench.change((d) => (d.form = v)),
})
const common = forms.filter((f) => f.common)
const rest = forms.filter((f) => !f.common)
const other = computed(() => rest.find((f) => f.value === form.value))
</script>

<template>
  <header class="bar">
    <el-button class="switch" aria-label="Variations" title="Variations (Ctrl+K)" @click="emit('variations')"><Icon name="down" /></el-button>
    <VariationTitle />
    <button v-if="bench.plain" type="button" class="chip plain" @click="bench.togglePlain">plain base, for comparison <kbd>B</kbd></button>
    <SaveChip />
    <div class="forms">
      <el-radio-group v-model="form" class="pick" aria-label="Form">
        <el-radio-button v-for="f in common" :key="f.value" :value="f.value">{{ f.label }}</el-radio-button>
        <el-radio-button v-if="other" :value="other.value">{{ other.label }}</el-radio-button>
      </el-radio-group>
      <el-dropdown trigger="click" @command="form = $event">
        <el-button class="ghost" aria-label="More forms"><Icon name="down" /></el-button>
        <template #dropdown>
          <el-dropdown-menu>
            <el-dropdown-item v-for="f in rest" :key="f.value" :command="f.value">{{ f.label }}</el-dropdown-item>
          </el-dropdown-menu>
        </template>
      </el-dropdown>
    </div>
    <el-radio-group v-model="unitsShown" class="pick" aria-label="Units">
      <el-radio-button value="grams">g</el-radio-button><el-radio-button value="cups">cups</el-radio-button>
    </el-radio-group>
    <div class="hands">
      <el-button
        class="ghost"
        aria-label="The plain base, for comparison"
        title="Plain base (B)"
        :aria-pressed="bench.plain"
        @click="bench.togglePlain"
        ><Icon name="bench"
      /></el-button>
      <el-button class="ghost" aria-label="Versions" title="Versions" @click="emit('versions')"><Icon name="flag" /></el-button>
      <el-button class="ghost" aria-label="Undo" title="Undo (Ctrl+Z)" :disabled="!bench.canUndo" @click="bench.undo"><Icon name="undo" /></el-button>
      <el-button class="ghost" aria-label="Redo" title="Redo (Ctrl+Shift+Z)" :disabled="!bench.canRedo" @click="bench.redo"
        ><Icon name="redo"
      /></el-button>
      <el-button class="ghost" aria-label="All keys" title="All keys (?)" @click="emit('keys')"><Icon name="keys" /></el-button>
    </div>
  </header>
</template>

<style scoped>
.bar {
  display: flex;
  align-items: center;
  gap: var(--s3);
  padding: 0 var(--s3) 0 var(--s1);
  min-height: 60px;
}
.switch {
  width: var(--touch);
  padding: 0;
  flex: none;
}
.forms,
.hands {
  display: flex;
  align-items: center;
  flex: none;
}
.hands .el-button {
  width: var(--touch);
  padding: 0;
}
.hands .el-button[aria-pressed='true'] {
  background: var(--yolk);
  color: var(--on-yolk);
}
.plain {
  background: var(--yolk);
  color: var(--on-yolk);
  border: 0;
  min-height: var(--touch);
  cursor: pointer;
}
@media (max-width: 900px) {
  .bar {
    flex-wrap: wrap;
    padding: var(--s2) var(--s3);
    row-gap: var(--s2);
  }
  .bar > .title {
    flex: 1 1 50%;
  }
}
</style>
