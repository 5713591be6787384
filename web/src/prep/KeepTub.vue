<script setup lang="ts">
import { ref, watch } from 'vue'
import { waits } from '@/away/outbox'
import { say } from '@/parts/say'
import type { Schemas } from '@/api/client'
import Icon from '@/parts/Icon.vue'
import { usePrep, type Preparation } from './prep'

const props = defineProps<{ result: Preparation }>()
const prep = usePrep()
const name = ref('')
const touched = ref(false)
const stands = ref(true)
const busy = ref(false)
const kept = ref<string>()
const done = ref(false) // this very tub is kept; another click would make a second one
watch(
  () => props.result,
  () => (done.value = false),
)
watch(
  () => props.result.item.name,
  (n) => {
    if (!touched.value) name.value = n
  },
  { immediate: true },
)
watch(
  () => [prep.wish.method, prep.wish.from],
  () => {
    touched.value = false
    name.value = props.result.item.name
    kept.value = undefined
  },
)

async function keep(item: Schemas['PantryItem'], as: string, standsFor?: string) {
  busy.value = true
  try {
    const { landed } = await prep.keep({ ...item, name: as, ...(standsFor ? { stands_for: standsFor } : {}) })
    kept.value = as
    done.value ||= item === props.result.item
    say({
      message: !landed
        ? waits(`“${as}”`)
        : standsFor
          ? `Saved. Every variation with ${props.result.stand_in?.name} is worked out with it from now on.`
          : `Saved. “${as}” is in the pantry.`,
      duration: 5000,
    })
  } catch (e) {
    say({ message: (e as Error).message, duration: 6000, showClose: true })
  }
  busy.value = false
}
</script>

<template>
  <section class="panel keep" aria-label="The tub">
    <header>
      <h2>Today’s tub</h2>
      <p class="end">{{ result.keeps_days ? `keeps ${result.keeps_days} days in the fridge` : 'keeps dry' }}</p>
    </header>
    <form novalidate class="body" @submit.prevent="keep(result.item, name, stands ? result.stand_in?.id : undefined)">
      <el-input v-model="name" maxlength="200" aria-label="Name of the tub" @input="touched = true" />
      <el-checkbox v-if="result.stand_in" v-model="stands" class="stand">use it for “{{ result.stand_in.name }}” everywhere</el-checkbox>
      <p v-else class="hint">It comes on the shelf under its own name.</p>
      <el-button class="go" native-type="submit" :loading="busy" :disabled="!name.trim() || done">Save {{ result.product_g.toFixed(0) }} g</el-button>
      <p v-if="kept" class="hint" role="status">
        <Icon name="tick" :size="14" /> “{{ kept }}” is saved. <router-link to="/pantry">Pantry</router-link> ·
        <router-link to="/">Bench</router-link>
      </p>
      <template v-for="f in result.left" :key="f.name">
        <el-button v-if="f.item" @click="keep(f.item, f.item.name)"><Icon name="drop" />Save {{ f.grams.toFixed(0) }} g juice too</el-button>
      </template>
    </form>
  </section>
</template>

<style scoped>
.keep {
  padding-bottom: var(--s3);
}
.body {
  display: grid;
  gap: var(--s2);
  padding: var(--s2) var(--s4) 0;
}
.stand {
  height: auto;
  min-height: var(--touch);
  white-space: normal;
}
.stand :deep(.el-checkbox__label) {
  white-space: normal;
  line-height: 1.2;
}
.hint {
  color: var(--ink-2);
  font-size: var(--t-mini);
}
.hint a {
  color: var(--rim);
}
</style>
