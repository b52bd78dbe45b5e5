<script setup lang="ts">
import { arrowWay } from '../../../composables/keyNames'

defineProps<{ label: string; form: 'dot' | 'corner' | 'bar' }>()
const emit = defineEmits<{
  drag: [event: PointerEvent]
  /** An arrow key: the way it points, ten times as far with Shift. */
  nudge: [x: number, y: number]
}>()

function press(event: KeyboardEvent): void {
  const way = arrowWay(event)
  if (!way) return
  event.preventDefault()
  event.stopPropagation()
  emit('nudge', ...way)
}
</script>

<template>
  <button
    type="button"
    class="grip-target"
    :class="form"
    :aria-label="label"
    @pointerdown="(event) => emit('drag', event)"
    @keydown="press"
  ></button>
</template>

<style scoped>
button {
  position: absolute;
  width: 26px;
  height: 26px;
  padding: 0;
  transform: translate(-50%, -50%);
  border: 0;
  background: none;
  cursor: move;
}

button::before {
  content: '';
  position: absolute;
  inset: 7px;
  border: 2px solid var(--ink);
  border-radius: 50%;
  background: var(--paper);
}

.corner {
  transform: translate(-110%, -110%);
  cursor: nwse-resize;
}

.corner::before {
  border-radius: 2px 2px 8px;
}

.bar {
  width: 36px;
  cursor: ns-resize;
}

.bar::before {
  inset: 11px 7px;
  border: 0;
  border-radius: 2px;
  background: #ffffff;
  box-shadow: 0 0 0 1.5px rgb(30 42 47 / 75%);
}
</style>
