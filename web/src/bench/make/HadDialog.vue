<script setup lang="ts">
import { computed } from 'vue'
import { ago } from '@/parts/figures'
import { useMaking } from './making'

/** A bowl of this variation is under way: go on with it, or begin another. */
const making = useMaking()
const open = computed({ get: () => !!making.had, set: (v) => !v && (making.had = undefined) })
</script>

<template>
  <el-dialog v-model="open" title="One is under way" width="min(460px, 94vw)" append-to-body>
    <template v-if="making.had">
      <p>
        <b>{{ making.had.name }}</b>, begun {{ ago(making.had.started_at, new Date()) }}: {{ making.had.doing || 'ready to cook' }}.
      </p>
      <p class="ways">
        <el-button class="go" @click="making.goOn(making.had!.id)">Go on with it</el-button>
        <el-button @click="making.begin()">Begin another</el-button>
      </p>
    </template>
  </el-dialog>
</template>

<style scoped>
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s2);
  padding-top: var(--s4);
}
</style>
