<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { nextTick, useId, useTemplateRef } from 'vue'

import { explainWithin, useExplained, vTip } from '../../composables/explanations'

const props = withDefaults(defineProps<{ title: string; summary: string; startsOpen?: boolean }>(), {
  startsOpen: false,
})

const id = useId()
/** Folds stay as they were left. */
const open = useLocalStorage(`lucky-margin-fold-${props.title}`, props.startsOpen)
const tip = useExplained(() => props.title)
explainWithin(props.title)
const fold = useTemplateRef<HTMLElement>('fold')

/** What was opened comes into sight, as much of it as there is room for. */
async function toggle(): Promise<void> {
  open.value = !open.value
  await nextTick()
  if (open.value) fold.value?.scrollIntoView({ block: 'nearest' })
}
</script>

<template>
  <section ref="fold" class="fold" :class="{ open }">
    <h2>
      <button v-tip="tip" type="button" :aria-expanded="open" :aria-controls="id" @click="toggle">
        <svg width="10" height="10" viewBox="0 0 10 10" aria-hidden="true">
          <path d="M3 1.5L7 5L3 8.5" fill="none" stroke="currentColor" stroke-width="1.5" />
        </svg>
        {{ title }}
        <span>{{ summary }}</span>
      </button>
    </h2>
    <div v-if="open" :id="id" class="inside"><slot></slot></div>
  </section>
</template>

<style scoped>
.fold {
  margin: 0 -12px;
  border-top: 1px dashed var(--rule);
}

/* Not between folds. */
:not(.fold) + .fold {
  margin-top: 10px;
}

h2 {
  font: 600 13px var(--text);
}

button {
  display: flex;
  gap: 6px;
  align-items: center;
  width: 100%;
  min-height: 30px;
  padding: 4px 12px;
  border: 0;
  background: none;
  font-weight: 600;
  text-align: left;
}

button:hover {
  background: var(--paper);
}

svg {
  flex: none;
  transition: transform 120ms;
}

.fold.open svg {
  transform: rotate(90deg);
}

span {
  flex: 1;
  overflow: hidden;
  color: var(--ink-soft);
  font-size: 12px;
  font-weight: 400;
  text-align: right;
  text-overflow: ellipsis;
  white-space: nowrap;
}

.inside {
  padding: 0 12px 12px;
}

.inside > :deep(.field-label:first-child),
.inside > :deep(.slider-row:first-child) {
  margin-top: 2px;
}
</style>
