<script setup lang="ts">
import { computed, onMounted } from 'vue'
import Icon from '@/parts/Icon.vue'
import { sheetOf } from '@/parts/address'
import { useMaking } from './making'

/** Bowls that are under way, to go back to. */
const making = useMaking()
onMounted(() => void making.load())
const first = computed(() => making.underWay[0])
const more = computed(() => making.underWay.length - 1)
</script>

<template>
  <el-dropdown v-if="first && more" trigger="click" @command="making.goOn($event)">
    <el-button class="under-way" :aria-label="`${making.underWay.length} bowls are under way`"
      ><Icon name="bench" :size="18" /><b>{{ making.underWay.length }}</b
      ><span class="words">&nbsp;under way</span></el-button
    >
    <template #dropdown>
      <el-dropdown-menu>
        <el-dropdown-item v-for="b in making.underWay" :key="b.id" :command="b.id"
          ><span class="one"
            ><b>{{ b.name }}</b
            ><small>{{ b.trouble ?? (b.doing || 'ready to cook') }}</small></span
          ></el-dropdown-item
        >
      </el-dropdown-menu>
    </template>
  </el-dropdown>
  <router-link v-else-if="first" class="el-button under-way" :to="sheetOf(first.id)" :title="`${first.name}: ${first.doing || 'ready to cook'}`"
    ><Icon name="bench" :size="18" /><span>{{ first.doing || 'ready to cook' }}</span
    ><b class="sign-of" aria-hidden="true">1</b></router-link
  >
</template>

<style scoped>
.under-way {
  flex: none;
  max-width: 200px;
  background: var(--yolk-wash);
  border-color: var(--ink);
  text-decoration: none;
}
a.under-way {
  display: inline-flex;
  gap: 6px;
}
a span {
  overflow: hidden;
  text-overflow: ellipsis;
}
/* Where the name needs the room it is a sign with a number. */
.sign-of {
  display: none;
}
@media (max-width: 900px) {
  .under-way {
    min-width: var(--touch);
    padding: 0 6px;
  }
  .sign-of {
    display: inline;
  }
  a span,
  .words {
    position: absolute;
    width: 1px;
    height: 1px;
    clip-path: inset(50%);
  }
}
.one {
  display: grid;
  line-height: 1.2;
}
small {
  color: var(--ink-2);
}
</style>
