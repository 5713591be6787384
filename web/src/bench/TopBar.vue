<script setup lang="ts">
import { computed } from 'vue'
import { useMediaQuery } from '@vueuse/core'
import type { Schemas } from '@/api/client'
import Icon from '@/parts/Icon.vue'
import { unitsShown } from '@/parts/settings'
import { useBench } from './bench'
import { forms } from './choices'
import UnderWay from '@/bench/make/UnderWay.vue'
import VariationTitle from './VariationTitle.vue'

const emit = defineEmits<{ variations: []; versions: []; help: []; print: []; guest: []; steps: []; pulling: []; toppings: [] }>()
const bench = useBench()
const phone = useMediaQuery('(max-width: 700px)')
const narrow = useMediaQuery('(max-width: 900px)') // the name comes first: what is rarely wanted stands behind it
const wide = useMediaQuery('(min-width: 1040px)')
const form = computed({
  get: () => bench.doc?.form,
  set: (v: Schemas['Form'] | undefined) => v && bench.turnInto(v),
})
/** The common forms in sight where there is room, else the one that is chosen; the rest behind it. */
const shown = computed(() => forms.filter((f) => f.value === form.value || (wide.value && f.common)))
const rest = computed(() => forms.filter((f) => !shown.value.includes(f)))
const other = computed(() => (unitsShown.value === 'grams' ? 'cups' : 'grams'))
function choose(command: string) {
  if (command === 'plain') bench.togglePlain()
  else if (command === 'versions') emit('versions')
  else if (command === 'print') emit('print')
  else if (command === 'guest') emit('guest')
  else if (command === 'steps') emit('steps')
  else if (command === 'pulling') emit('pulling')
  else if (command === 'toppings') emit('toppings')
  else if (command === 'help') emit('help')
  else if (command === 'redo') bench.redo()
  else if (command === 'units') unitsShown.value = other.value
  else form.value = command as Schemas['Form']
}
</script>

<template>
  <header class="bar">
    <el-button class="switch" aria-label="Variations" title="Variations" @click="emit('variations')"><Icon name="down" /></el-button>
    <VariationTitle />
    <UnderWay />
    <button v-if="bench.plain" type="button" class="chip plain" @click="bench.togglePlain">plain base, for comparison <kbd>B</kbd></button>
    <div v-if="!phone" class="forms">
      <el-radio-group v-if="!narrow" v-model="form" class="pick" aria-label="Form">
        <el-radio-button v-for="f in shown" :key="f.value" :value="f.value">{{ f.label }}</el-radio-button>
      </el-radio-group>
      <el-dropdown trigger="click" @command="form = $event">
        <el-button v-if="narrow" class="form" :aria-label="`Form: ${shown[0]?.label}`"
          >{{ shown[0]?.label }}<Icon name="down" :size="18"
        /></el-button>
        <el-button v-else class="ghost" aria-label="More forms"><Icon name="down" /></el-button>
        <template #dropdown>
          <el-dropdown-menu>
            <el-dropdown-item v-for="f in rest" :key="f.value" :command="f.value">{{ f.label }}</el-dropdown-item>
          </el-dropdown-menu>
        </template>
      </el-dropdown>
    </div>
    <el-radio-group v-if="!narrow" v-model="unitsShown" class="pick" aria-label="Units">
      <el-radio-button value="grams">g</el-radio-button><el-radio-button value="cups">cups</el-radio-button>
    </el-radio-group>
    <div class="hands">
      <el-button class="ghost" aria-label="Undo" title="Undo (Ctrl+Z)" :disabled="!bench.canUndo" @click="bench.undo"><Icon name="undo" /></el-button>
      <el-button v-if="!narrow" class="ghost" aria-label="Redo" title="Redo (Ctrl+Shift+Z)" :disabled="!bench.canRedo" @click="bench.redo"
        ><Icon name="redo"
      /></el-button>
      <el-dropdown trigger="click" @command="choose">
        <el-button class="ghost" aria-label="More" title="More"><Icon name="more" /></el-button>
        <template #dropdown>
          <el-dropdown-menu class="bench-more">
            <el-dropdown-item v-if="narrow" command="redo" :disabled="!bench.canRedo"><Icon name="redo" />Redo</el-dropdown-item>
            <template v-if="phone">
              <el-dropdown-item v-for="f in rest" :key="f.value" :command="f.value"><Icon name="pour" />As {{ f.many }}</el-dropdown-item>
            </template>
            <el-dropdown-item v-if="narrow" command="units"
              ><Icon name="scale" />In {{ other === 'cups' ? 'cups and spoons' : 'grams' }}</el-dropdown-item
            >
            <el-dropdown-item command="steps"><Icon name="list" />Read the steps</el-dropdown-item>
            <el-dropdown-item command="toppings"><Icon name="drop" />What goes on top</el-dropdown-item>
            <el-dropdown-item command="pulling"><Icon name="shelf" />What has to be out</el-dropdown-item>
            <el-dropdown-item command="print"><Icon name="print" />Print a card</el-dropdown-item>
            <el-dropdown-item command="guest"><Icon name="out" />A link for a guest</el-dropdown-item>
            <el-dropdown-item command="versions"><Icon name="flag" />Versions</el-dropdown-item>
            <el-dropdown-item command="plain"
              ><Icon name="bench" />{{ bench.plain ? 'With the additions' : 'Plain base, to compare' }} <kbd>B</kbd></el-dropdown-item
            >
            <el-dropdown-item command="help"><Icon name="why" />Help: tour, words, keys <kbd>?</kbd></el-dropdown-item>
          </el-dropdown-menu>
        </template>
      </el-dropdown>
    </div>
  </header>
</template>

<style scoped>
.bar {
  display: flex;
  align-items: center;
  gap: var(--s3);
  padding: 0 var(--s3) 0 var(--s1);
  min-height: 60px;
}
.switch {
  width: var(--touch);
  padding: 0;
  flex: none;
}
.forms,
.hands {
  display: flex;
  align-items: center;
  flex: none;
}
.form {
  gap: 2px;
  padding: 0 4px 0 var(--s2);
}
.hands .el-button {
  width: var(--touch);
  padding: 0;
}
.plain {
  background: var(--yolk);
  color: var(--on-yolk);
  border: 0;
  min-height: var(--touch);
  cursor: pointer;
}
@media (max-width: 900px) {
  .bar {
    padding: var(--s1) var(--s2);
    gap: var(--s2);
  }
}
@media (max-width: 700px) {
  .bar:has(.plain) {
    flex-wrap: wrap;
  }
  .plain {
    order: 9;
  }
}
</style>

<style>
.bench-more .el-dropdown-menu__item {
  gap: var(--s2);
}
.bench-more kbd {
  margin-left: auto;
}
</style>
