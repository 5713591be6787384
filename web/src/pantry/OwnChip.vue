<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import Icon from '@/parts/Icon.vue'

/** Says that figures are the cook's own, since when, and whether the tub is too old. */
const props = defineProps<{ own: Schemas['OwnFigures'] }>()
const day = computed(() =>
  props.own.made_on ? new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short' }).format(new Date(props.own.made_on)) : '',
)
const words = computed(() => {
  if (props.own.stale) return `${props.own.age_days} days old, keeps ${props.own.keeps_days}`
  if (props.own.measured.length) return `measured ${day.value}`.trim()
  if (props.own.estimated.length) return 'from a pack, partly estimated'
  return `yours ${day.value}`.trim()
})
</script>

<template>
  <span class="chip" :class="own.stale ? 'beet' : 'leaf'" :title="own.name"
    ><i v-if="own.stale" class="sign high" /><Icon v-else name="tub" :size="14" />{{ words }}</span
  >
</template>
