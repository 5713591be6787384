<script setup lang="ts">
import { computed } from 'vue'
import Icon from './Icon.vue'
import type { useCounter } from './useCounter'

/** Sound on or off; yellow while a fresh page may not sound yet. */
const props = defineProps<{ counter: ReturnType<typeof useCounter> }>()
const wished = computed(() => props.counter.wished.value)
const says = computed(() =>
  !wished.value ? 'Sound is off' : props.counter.silent.value ? 'Sound: tap anywhere first, a fresh page may not sound' : 'Sound is on',
)
const turn = () => props.counter.turn()
</script>

<template>
  <el-button
    class="ghost sound"
    :class="{ waits: wished && counter.silent.value }"
    :aria-pressed="wished"
    :aria-label="says"
    :title="says"
    @click="turn"
    ><Icon :name="wished ? 'sound' : 'mute'"
  /></el-button>
</template>

<style scoped>
.waits {
  background: var(--yolk-wash);
}
</style>
