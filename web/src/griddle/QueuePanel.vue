<script setup lang="ts">
import { computed } from 'vue'
import Icon from '@/parts/Icon.vue'
import { useBoard, type Todo } from './board'
import { signOf, stands } from './words'

/** What to do now, big, and what comes after it. */
defineProps<{ rows: number }>()
const emit = defineEmits<{ act: [todo: Todo] }>()
const board = useBoard()
const head = computed(() => board.todo.find((t) => t.due || stands(t, board.nowMs).state !== 'ahead'))
const rest = computed(() => board.todo.filter((t) => t !== head.value))
const name = (t: Todo) => board.bowls.get(t.of ?? '')?.name
const stand = (t: Todo) => stands(t, board.nowMs)
const soon = (t: Todo) => stand(t).says || (t.act === 'pour' ? 'place is free' : t.act === 'judge' ? 'the plate waits' : 'when a hand is free')
</script>

<template>
  <section class="panel queue" aria-label="What to do">
    <button v-if="head" type="button" class="now" :class="stand(head).state" data-now @click="emit('act', head)">
      <span class="top"
        ><span class="of"
          >Do this now<template v-if="name(head)">: {{ name(head) }}</template></span
        ><kbd>space</kbd></span
      >
      <span class="act" :class="{ long: head.title.length > 6 }"
        ><Icon :name="signOf(head.act)" :size="head.title.length > 6 ? 34 : 46" />{{ head.title }}</span
      >
      <span class="why">
        <span v-if="stand(head).state === 'late'" class="by"><i class="sign high" />{{ stand(head).says }}</span>
        {{ head.text }}
      </span>
    </button>
    <div v-else class="now calm" data-now>
      <span class="top">Nothing to do this moment</span>
      <span v-if="rest[0]" class="act"><Icon :name="signOf(rest[0].act)" :size="34" />{{ rest[0].title }} in {{ stand(rest[0]).says }}</span>
      <span v-else class="why">{{ board.state?.bowls.length ? 'Every bowl is through.' : 'Put a bowl on a plate to begin.' }}</span>
    </div>
    <slot />
    <ol class="next">
      <li v-for="t in rest.slice(0, rows)" :key="`${t.act} ${t.number} ${t.of} ${t.tray}`" :class="stand(t).state">
        <button type="button" @click="emit('act', t)">
          <Icon :name="signOf(t.act)" :size="22" /><b>{{ t.title }}</b
          ><span>{{ soon(t) }}</span>
        </button>
      </li>
    </ol>
    <p v-if="rest.length > rows" class="muted more">and {{ rest.length - rows }} more</p>
    <p class="hint muted"><kbd>1</kbd> to <kbd>9</kbd> acts on that place</p>
    <el-button class="back" :disabled="!board.last" @click="board.takeBack"
      ><Icon name="undo" />{{ board.last ? `Take back: ${board.last.text}` : 'Nothing to take back' }} <kbd>Z</kbd></el-button
    >
  </section>
</template>

<style scoped>
.queue {
  display: flex;
  flex-direction: column;
  gap: var(--s2);
  padding: var(--s3);
}
.now {
  display: grid;
  gap: var(--s1);
  padding: var(--s3);
  border: 2px solid var(--on-yolk);
  border-radius: var(--r-well);
  background: var(--yolk);
  color: var(--on-yolk);
  text-align: left;
  cursor: pointer;
  touch-action: manipulation;
}
.calm {
  border: 2px dashed var(--edge);
  background: var(--well);
  color: var(--ink);
  cursor: default;
}
.top {
  display: flex;
  justify-content: space-between;
  gap: var(--s2);
  font-weight: 650;
  font-size: var(--t-body);
  overflow-wrap: anywhere;
}
.of {
  display: -webkit-box;
  overflow: hidden;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 2;
}
.act {
  display: flex;
  align-items: center;
  gap: var(--s2);
  font-size: clamp(30px, 4.2vw, 54px);
  font-weight: 800;
  line-height: 1.05;
  overflow-wrap: anywhere;
}
.act.long {
  font-size: clamp(24px, 2.8vw, 36px);
}
.calm .act {
  font-size: var(--t-title);
}
.top kbd {
  align-self: start;
}
.act svg {
  flex: none;
}
.why {
  font-size: var(--t-lead);
  line-height: 1.2;
}
.by {
  display: inline-flex;
  align-items: center;
  gap: 6px;
  padding: 1px 10px;
  border-radius: var(--r-pill);
  background: var(--beet);
  color: var(--enamel);
  font-weight: 700;
}
.by .sign {
  background: currentcolor;
}
.next {
  flex: 1;
  list-style: none;
  margin: 0;
  padding: 0;
  min-height: 0;
  overflow-y: auto;
}
.next button {
  display: flex;
  align-items: center;
  gap: var(--s2);
  width: 100%;
  min-height: var(--touch);
  padding: 0 var(--s1);
  border: 0;
  border-bottom: 1px solid var(--hair);
  background: none;
  text-align: left;
  cursor: pointer;
}
.next button:disabled {
  cursor: default;
}
.next b {
  font-size: var(--t-lead);
  overflow-wrap: anywhere;
}
.next span {
  margin-left: auto;
  color: var(--ink-2);
  white-space: nowrap;
}
.next .late button {
  background: var(--beet-wash);
}
.next .due b {
  font-weight: 800;
}
.more,
.hint {
  font-size: var(--t-mini);
}
.back {
  justify-content: start;
  height: auto;
  min-height: 56px;
  white-space: normal;
  text-align: left;
  font-size: var(--t-lead);
}
@media (max-width: 1000px) {
  .queue {
    display: grid;
    grid-template: 'now next' auto 'back next' auto / minmax(0, 3fr) minmax(0, 2fr);
  }
  .now {
    grid-area: now;
  }
  .next {
    grid-area: next;
    align-self: start;
  }
  .back {
    grid-area: back;
  }
  .hint,
  .more {
    display: none;
  }
}
@media (max-width: 600px) {
  .queue {
    grid-template: 'now' auto 'next' auto 'back' auto / minmax(0, 1fr);
    gap: 4px;
    padding: var(--s2);
  }
  .now {
    padding: var(--s2) var(--s3);
  }
  .now .why {
    font-size: var(--t-body);
  }
  .back {
    min-height: var(--touch);
    font-size: var(--t-body);
  }
  kbd {
    display: none;
  }
}
</style>
