<script setup lang="ts">
import { api, got, said, type Schemas } from '@/api/client'
import { say } from '@/parts/say'
import Icon from '@/parts/Icon.vue'
import type { TaskNow } from './sheet'

/** A simulated scale has a cook who plays on it: the bowl on, a pour, a hand on the pan. */
const props = defineProps<{ task?: TaskNow }>()
const play = (play?: Schemas['ScaleLoad']['play'], grams = 0) =>
  got(api.POST('/devices/scale/load', { body: { grams, ...(play ? { play } : {}) } })).catch((e) => say(said(e)))
</script>

<template>
  <div class="play-bar well" role="group" aria-label="Simulated scale">
    <span class="muted"><Icon name="scale" :size="18" />simulated</span>
    <el-button @click="play(undefined, 0)">All off</el-button>
    <el-button @click="play('bowl')">A bowl on</el-button>
    <el-button v-if="task?.kind === 'weigh'" data-pour @click="play('pour', props.task!.asks_g)">Pour it</el-button>
    <el-button v-if="task?.kind === 'weigh'" data-pour-over @click="play('over', props.task!.asks_g)">Pour too much</el-button>
    <el-button @click="play('hand')">A hand on it</el-button>
    <el-button @click="play('lift')">Bowl off</el-button>
    <el-button @click="play('back')">Bowl back</el-button>
  </div>
</template>

<style scoped>
.play-bar {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px var(--s2);
  padding: 4px var(--s3);
}
.muted {
  display: inline-flex;
  align-items: center;
  gap: 4px;
  font-size: var(--t-mini);
}
</style>
