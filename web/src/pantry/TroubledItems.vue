<script setup lang="ts">
import { say } from '@/parts/say'
import Icon from '@/parts/Icon.vue'
import { sayPutAside } from '@/parts/undo'
import { usePantry } from './pantry'

/** Items of the pantry that cannot be used as they are: each with its sentence and a way out. */
const pantry = usePantry()
async function putAside(id: string, name: string) {
  try {
    sayPutAside(`${name} is put aside.`, await pantry.putAside(id))
  } catch (e) {
    say({ message: (e as Error).message, duration: 6000, showClose: true })
  }
}
</script>

<template>
  <ul v-if="pantry.troubled.length" class="troubled" aria-label="Needs mending">
    <li v-for="t in pantry.troubled" :key="t.id">
      <p>
        <i class="sign high" /> <b>{{ t.name }}</b> {{ t.trouble }}
      </p>
      <a class="el-button" :href="`/api/v1/exports/pantry/${t.id}?as=json`" download>Export</a>
      <el-button :aria-label="`Put aside ${t.name}`" @click="putAside(t.id, t.name)"><Icon name="bin" :size="18" /></el-button>
    </li>
  </ul>
</template>

<style scoped>
.troubled {
  list-style: none;
  margin: 0;
  padding: var(--s2) var(--s3);
  border-bottom: 2px solid var(--hair);
  max-height: 34%;
  overflow: auto;
  flex: none;
}
li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s2);
  padding: var(--s1) 0;
}
p {
  flex: 1;
  min-width: 180px;
  font-size: 14px;
  color: var(--beet);
}
b {
  color: var(--ink);
}
a {
  text-decoration: none;
}
</style>
