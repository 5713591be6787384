<script setup lang="ts">
import { onScopeDispose, ref, watch } from 'vue'
import type { ListItem } from '@/api/client'
import { isLocal } from '@/away/drafts'
import { forms } from '@/bench/choices'
import AllergenLine from '@/parts/AllergenLine.vue'
import ExportMenu from '@/parts/ExportMenu.vue'
import Icon from '@/parts/Icon.vue'
import PortionDisc from '@/parts/PortionDisc.vue'
import { ago, unbroken } from '@/parts/figures'
import { useNear } from '@/parts/useNear'
import { heatOf } from './heats'

/** A variation in the list. What is far from sight is its name only, so that hundreds of them open at once. */
const props = defineProps<{ card: ListItem; here: boolean; busy: boolean; now: Date }>()
const emit = defineEmits<{ open: []; duplicate: []; remove: [] }>()
const el = ref<HTMLElement>()
const near = useNear(el)
const heat = ref('')
let shown = true
onScopeDispose(() => (shown = false))
watch(
  [near, () => props.card.revision, () => props.busy],
  async ([seen]) => {
    if (!seen || props.busy || props.card.picture?.trouble || isLocal(props.card.id)) return
    heat.value = await heatOf(props.card, () => shown && !props.busy)
  },
  { immediate: true },
)
</script>

<template>
  <li ref="el" class="well" :class="{ here }">
    <button type="button" class="open" :disabled="busy" :data-card="card.name" @click="emit('open')">
      <template v-if="near">
        <PortionDisc :size="96" :diameter-mm="card.picture?.diameter_mm" :colour="card.picture?.colour" />
        <span>
          <b>{{ card.name }}</b>
          <em v-if="card.picture?.trouble" class="mend"><i class="sign high" />{{ card.picture.trouble }}</em>
          <em v-else>{{ unbroken(card.verdict) }}</em>
          <AllergenLine :text="card.picture?.allergens" />
          <small
            ><template v-if="card.picture?.trouble">needs mending: open it, or export it</template
            ><template v-else-if="card.picture"
              >{{ card.picture.count }} {{ forms.find((f) => f.value === card.form)?.many
              }}<template v-if="card.picture.diameter_mm">, {{ card.picture.diameter_mm.toFixed(0) }} mm</template
              ><template v-if="heat"> · {{ unbroken(heat) }}</template></template
            >
            · changed {{ ago(card.updated_at, now) }}</small
          >
        </span>
      </template>
      <b v-else>{{ card.name }}</b>
    </button>
    <span v-if="near" class="acts">
      <el-button class="ghost" :aria-label="`Duplicate ${card.name}`" title="Duplicate" :disabled="busy" @click="emit('duplicate')"
        ><Icon name="copy"
      /></el-button>
      <ExportMenu v-if="!isLocal(card.id)" kind="variations" :id="card.id" :name="card.name" />
      <el-button v-if="!isLocal(card.id)" class="ghost" :aria-label="`Put aside ${card.name}`" :disabled="busy" @click="emit('remove')"
        ><Icon name="bin"
      /></el-button>
    </span>
  </li>
</template>

<style scoped>
li {
  min-height: 100px;
  display: flex;
  align-items: center;
  padding: var(--s1);
}
li.here {
  background: var(--yolk-wash);
  box-shadow: inset 0 0 0 2px var(--ink);
}
.acts :deep(.el-button) {
  width: var(--touch);
  padding: 0;
}
.open {
  display: flex;
  align-items: center;
  gap: var(--s3);
  flex: 1;
  min-width: 0;
  min-height: 84px;
  text-align: left;
  background: none;
  border: 0;
  padding: var(--s1) var(--s2);
  cursor: pointer;
  border-radius: var(--r-ctl);
}
.acts {
  display: grid;
}
.open svg {
  flex: none;
}
.open > span {
  min-width: 0;
  overflow-wrap: anywhere;
}
.open b {
  display: block;
  font-size: var(--t-lead);
}
.open em {
  display: -webkit-box;
  -webkit-line-clamp: 3;
  -webkit-box-orient: vertical;
  overflow: hidden;
  font-style: normal;
  font-size: 14px;
  line-height: 1.2;
  padding: 2px 0 4px;
}
.open .mend {
  color: var(--beet);
}
.open .mend .sign {
  margin-right: 6px;
}
.open small {
  display: block;
  color: var(--ink-2);
  font-size: var(--t-mini);
}
</style>
