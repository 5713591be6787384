<script setup lang="ts">
import { ref } from 'vue'
import { api, got, said, type Schemas } from '@/api/client'
import Icon from '@/parts/Icon.vue'
import type { Own } from './kitchen'

/** The kitchen as it was; what is chosen is put on the form, and kept like any other change. */
const emit = defineEmits<{ chosen: [own: Own] }>()
const open = ref(false)
const items = ref<Schemas['EarlierKitchen'][]>()
const trouble = ref('')
const when = (at: string) => new Date(at).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' })

async function show() {
  open.value = true
  items.value = undefined
  trouble.value = ''
  try {
    items.value = (await got(api.GET('/kitchen/revisions'))).items
  } catch (e) {
    trouble.value = said(e)
  }
}
function choose(one: Schemas['EarlierKitchen']) {
  emit('chosen', one.document)
  open.value = false
}
</script>

<template>
  <el-button @click="show"><Icon name="undo" />As it was</el-button>
  <el-dialog v-model="open" title="The kitchen as it was" width="min(520px, 96vw)">
    <p v-if="trouble" class="none" role="alert"><i class="sign high" />{{ trouble }} <el-button @click="show">Try again</el-button></p>
    <p v-else-if="!items" class="none">Looking …</p>
    <p v-else-if="!items.length" class="none">It was never different. Every kitchen that you save from now on is listed here.</p>
    <ul v-else class="rows">
      <li v-for="one in items" :key="one.revision" class="well">
        <span class="what"
          ><b>{{ when(one.saved_at) }}</b
          ><small>{{ one.document.name }}</small></span
        >
        <el-button @click="choose(one)">Look at it</el-button>
      </li>
    </ul>
  </el-dialog>
</template>

<style scoped>
.none {
  color: var(--ink-2);
}
</style>
