<script setup lang="ts">
import { ElSwitch } from 'element-plus'
import { computed } from 'vue'

import type { DocketLine } from '../../api/types'
import { explainWithin, useExplained, vTip } from '../../composables/explanations'
import { useBench } from '../../stores/bench'

const props = defineProps<{ line: DocketLine; number: number }>()
const tip = useExplained(() => props.line.title)
explainWithin(props.line.title)

defineEmits<{ reset: []; switch: [on: boolean] }>()

const bench = useBench()
const isOpen = computed(() => bench.openStep === props.line.key)
</script>

<template>
  <div class="step" :class="{ open: isOpen, set: line.is_set }">
    <div class="line">
      <button
        v-tip="tip"
        type="button"
        class="toggle"
        :aria-expanded="isOpen"
        :aria-controls="`step-${line.key}`"
        :disabled="line.lacks_photo"
        @click="bench.toggleStep(line.key)"
      >
        <span class="no" aria-hidden="true">{{ number }}</span>
        <span class="words">
          <span class="title">{{ line.title }}</span>
          <span class="summary">{{ line.summary }}</span>
        </span>
      </button>
      <ElSwitch
        v-if="line.has_switch && !line.lacks_photo"
        :model-value="line.is_set"
        size="small"
        :aria-label="`${line.title} on or off`"
        @update:model-value="(now) => $emit('switch', now as boolean)"
      />
      <button
        v-if="isOpen"
        type="button"
        class="reset"
        :aria-label="`Reset ${line.title}`"
        :data-tip="`Reset ${line.title}`"
        @click="$emit('reset')"
      >
        <svg width="15" height="15" viewBox="0 0 15 15" aria-hidden="true">
          <path d="M3.2 4.6A5.2 5.2 0 1 1 2.3 8" fill="none" stroke="currentColor" stroke-width="1.5" />
          <path d="M2.6 1.6v3.6h3.6" fill="none" stroke="currentColor" stroke-width="1.5" />
        </svg>
      </button>
    </div>
    <div v-if="isOpen" :id="`step-${line.key}`" class="body">
      <slot></slot>
    </div>
  </div>
</template>

<style scoped>
.step {
  flex: none;
  margin: 0 14px;
  border-bottom: 1px dashed var(--rule);
}

.step.open {
  display: flex;
  flex: 0 1 auto;
  flex-direction: column;
  min-height: 0;
  margin: 0 10px;
  border: 1px solid var(--rule);
  border-top: 2px solid var(--clover);
  border-radius: 0 0 6px 6px;
  background: var(--card);
  box-shadow: 0 3px 8px rgb(30 42 47 / 10%);
}

.line {
  display: flex;
  flex: none;
  gap: 8px;
  align-items: center;
  padding: 0 4px;
}

.open .line {
  padding: 0 8px 0 7px;
}

.toggle {
  display: flex;
  flex: 1;
  gap: 9px;
  align-items: center;
  min-width: 0;
  padding: 5px 0;
  border: 0;
  background: none;
  text-align: left;
}

.toggle:disabled {
  color: var(--ink-soft);
  cursor: default;
}

.no {
  display: grid;
  flex: none;
  place-items: center;
  width: 22px;
  height: 22px;
  border: 1.5px solid var(--edge);
  border-radius: 50%;
  color: var(--ink-soft);
  font: 600 12.5px var(--heading);
}

.set .no {
  border-color: var(--clover);
  background: var(--clover);
  color: #ffffff;
}

.words {
  display: flex;
  flex: 1;
  gap: 10px;
  align-items: baseline;
  min-width: 0;
}

.title {
  flex: none;
  font: 600 15px/1.3 var(--heading);
}

.summary {
  flex: 1;
  min-width: 0;
  overflow: hidden;
  color: var(--ink-soft);
  font-size: 12px;
  text-align: right;
  text-overflow: ellipsis;
  white-space: nowrap;
}

/* All of what is set stands under the name of the step that is open. */
.open .words {
  display: block;
}

.open .summary {
  display: block;
  text-align: left;
  white-space: normal;
}

.reset {
  display: grid;
  place-items: center;
  width: 26px;
  height: 26px;
  padding: 0;
  border: 0;
  border-radius: 4px;
  background: none;
  color: var(--ink-soft);
}

.reset:hover {
  background: var(--paper-deep);
  color: var(--ink);
}

.body {
  min-height: 0;
  padding: 0 4px 12px 12px;
  overflow: hidden auto;
  /* Room for the scroll bar, so that nothing jumps when it comes. */
  scrollbar-gutter: stable;
}

/* On a low window the docket scrolls as a whole, as the step's own room would be too little. */
@media (max-height: 620px) {
  .step.open {
    flex: none;
  }
}

.line :deep(.el-switch) {
  --el-switch-on-color: var(--clover);
  --el-switch-off-color: #7d7768;
}
</style>
