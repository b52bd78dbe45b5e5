<script setup lang="ts" generic="Key extends string">
import { useExplained, useExplainedIn, vTip } from '../../composables/explanations'
import { vRadios } from '../../composables/radios'
import { lookingAt } from '../../composables/lookingAt'

export interface Choice<K> {
  key: K
  label: string
  /** A small outline of these proportions goes before the label. */
  ratio?: number
}

const props = defineProps<{
  choices: Choice<Key>[]
  chosen: Key | null
  label: string
  /** Each does something, and none stays chosen. */
  actions?: boolean
}>()
const emit = defineEmits<{ choose: [key: Key]; hover: [key: Key | null] }>()

const tip = useExplained(() => props.label)
const tipOf = useExplainedIn(() => props.label)

/** The sides of an outline of `ratio`, in px, of about the same area for every ratio. */
function glyph(ratio: number): { width: string; height: string } {
  const width = Math.min(16, Math.max(5, 11 * Math.sqrt(ratio)))
  return { width: `${width}px`, height: `${Math.min(14, Math.max(4, width / ratio))}px` }
}
</script>

<template>
  <div v-radios v-tip="tip" class="chips" :role="actions ? 'group' : 'radiogroup'" :aria-label="label">
    <button
      v-for="choice in choices"
      :key="choice.key"
      v-tip="tipOf(choice.label)"
      type="button"
      :role="actions ? undefined : 'radio'"
      class="chip"
      :class="{ on: choice.key === chosen }"
      :aria-checked="actions ? undefined : choice.key === chosen"
      @click="emit('choose', choice.key)"
      v-on="lookingAt((on) => emit('hover', on ? choice.key : null))"
    >
      <i v-if="choice.ratio" :style="glyph(choice.ratio)" aria-hidden="true"></i>{{ choice.label }}
    </button>
    <slot></slot>
  </div>
</template>

<style scoped>
.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
}

.chip {
  display: flex;
  gap: 5px;
  align-items: center;
  min-height: 26px;
  padding: 3px 8px;
  border: 1px solid var(--edge);
  border-radius: 4px;
  background: #ffffff;
  font-size: 12px;
}

.chip:hover {
  border-color: var(--ink);
}

.chip i {
  border: 1.5px solid var(--ink-soft);
  border-radius: 1px;
}

.chip.on {
  border-color: var(--clover);
  box-shadow: inset 0 0 0 1px var(--clover);
  background: var(--clover-pale);
  font-weight: 600;
}

.chip.on i {
  border-color: var(--clover);
}
</style>
