<script setup lang="ts">
import { ref } from 'vue'
import { forms } from '@/bench/choices'
import AllergenLine from '@/parts/AllergenLine.vue'
import { waitingFor } from '@/away/outbox'
import Icon from '@/parts/Icon.vue'
import ExportMenu from '@/parts/ExportMenu.vue'
import { useNear } from '@/parts/useNear'
import FingerprintBars from './FingerprintBars.vue'
import type { Shelved } from './bases'
import { styles } from './words'

/** A base on its shelf. What it is made of is drawn when it comes near the window, and stays. */
const props = defineProps<{ base: Shelved; ticked: boolean; asked: boolean }>()
const emit = defineEmits<{ tick: [on: boolean]; bench: []; change: []; aside: [] }>()
const card = ref<HTMLElement>()
const drawn = useNear(card)
const name = () => props.base.document.name
</script>

<template>
  <li ref="card" class="panel card" :data-base="name()" :data-base-id="base.id" :class="{ asked, drawn }">
    <header>
      <h2>{{ name() }}</h2>
      <el-checkbox class="end" :model-value="ticked" :aria-label="`Compare ${name()}`" @update:model-value="emit('tick', $event as boolean)" />
    </header>
    <template v-if="drawn">
      <p class="chips">
        <span class="chip">{{ forms.find((f) => f.value === base.document.form)?.label }}</span><span v-if="base.document.style" class="chip">{{
          styles[base.document.style]
        }}</span
        ><span v-if="waitingFor(`/bases/${base.id}`)" class="chip"><Icon name="offline" :size="14" />waits on this tablet</span
        ><span v-else-if="base.fingerprint.class" class="chip leaf">{{ base.fingerprint.class }}</span>
      </p>
      <FingerprintBars v-if="!base.fingerprint.trouble && !waitingFor(`/bases/${base.id}`)" :print="base.fingerprint" few />
      <p class="said" :class="{ mend: base.fingerprint.trouble }">
        <i v-if="base.fingerprint.trouble" class="sign high" /> {{ base.fingerprint.sentences[0] }}
      </p>
      <p class="of">{{ base.line_names.join(', ') }}</p>
    </template>
    <AllergenLine :text="base.allergen_text" />
    <p class="acts">
      <el-button @click="emit('bench')"><Icon name="bench" :size="18" />To the bench</el-button>
      <el-button @click="emit('change')">Change</el-button>
      <ExportMenu v-if="drawn" kind="bases" :id="base.id" :name="name()" />
      <el-button class="ghost bin" :aria-label="`Put aside ${name()}`" @click="emit('aside')"><Icon name="bin" :size="18" /></el-button>
    </p>
  </li>
</template>

<style scoped>
.card {
  display: flex;
  flex-direction: column;
  gap: var(--s2);
  padding-bottom: var(--s2);
}
.card:not(.drawn) {
  min-height: 340px; /* about what it will take: the shelf does not jump while it is scrolled */
}
.card.asked {
  border-color: var(--ink);
  background: var(--yolk-wash);
}
.card > :not(header) {
  margin: 0 var(--s4);
}
.card header {
  align-items: center;
}
.card h2 {
  overflow-wrap: anywhere;
}
.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.said {
  font-size: 14px;
}
.mend {
  color: var(--beet);
}
.of {
  color: var(--ink-2);
  font-size: var(--t-mini);
}
.acts {
  display: flex;
  gap: 6px;
  align-items: center;
  margin-top: auto !important;
  padding-top: var(--s2);
}
.bin {
  width: var(--touch);
  padding: 0;
  margin-left: auto;
}
</style>
