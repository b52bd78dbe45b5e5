<script setup lang="ts">
import { computed } from 'vue'

import type { Edit, TurnChanges } from '../../../api/types'
import { useTips, vTip } from '../../../composables/explanations'
import { useBench } from '../../../stores/bench'
import { useStage } from '../../../stores/stage'
import OverrideNote from '../../shared/OverrideNote.vue'
import SliderRow from '../../shared/SliderRow.vue'
import TickBox from '../../shared/TickBox.vue'

const TURNS: { name: string; edit: Edit['kind']; way: 'left' | 'right' | 'across' | 'down'; icon: string }[] = [
  { name: 'Turn left', edit: 'turn_quarter', way: 'left', icon: 'M4 8a5 5 0 1 1 1.5 3.6M4 4.2V8h3.8' },
  { name: 'Turn right', edit: 'turn_quarter', way: 'right', icon: 'M12 8a5 5 0 1 0-1.5 3.6M12 4.2V8H8.2' },
  { name: 'Mirror left and right', edit: 'mirror', way: 'across', icon: 'M8 2v12M6 5L2.5 11H6zM10 5l3.5 6H10z' },
  { name: 'Mirror top and bottom', edit: 'mirror', way: 'down', icon: 'M2 8h12M5 6L11 2.5V6zM5 10l6 3.5V10z' },
]

const bench = useBench()
const tip = useTips()
const stage = useStage()
const turn = computed(() => bench.here!.turn)

function change(changes: Partial<TurnChanges>): Edit {
  return { kind: 'set_turn', changes: changes as TurnChanges, only_this_size: bench.onlyThisSize }
}

function turnBy({ edit, way }: (typeof TURNS)[number]): void {
  void bench.edit({ kind: edit, way, only_this_size: bench.onlyThisSize } as Edit)
}
</script>

<template>
  <div class="buttons">
    <button
      v-for="one in TURNS"
      :key="one.name"
      type="button"
      class="action"
      :aria-label="one.name"
      :data-tip="one.name"
      @click="turnBy(one)"
    >
      <svg width="16" height="16" viewBox="0 0 16 16" aria-hidden="true"><path :d="one.icon" /></svg>
    </button>
    <button
      v-tip="tip('Level line')"
      type="button"
      class="action"
      :aria-pressed="stage.tool === 'level line'"
      @click="stage.take('level line')"
    >
      Level line
    </button>
  </div>
  <SliderRow
    label="Straighten"
    unit="°"
    :value="turn.straighten"
    :min="-45"
    :max="45"
    :step="0.1"
    :digits="2"
    @move="(straighten) => bench.drag(change({ straighten }))"
    @change="(straighten) => bench.slide(change({ straighten }))"
  />
  <TickBox label="Allow empty corners" :checked="turn.empty_corners" @update:checked="bench.edit(change({ empty_corners: $event }))" />
  <OverrideNote :steps="['turn']" />
</template>

<style scoped>
.buttons {
  display: flex;
  gap: 5px;
}

.action {
  min-width: 32px;
  padding: 4px 7px;
  font-size: 12px;
}

.action[aria-pressed='true'] {
  border-color: var(--ink);
  background: var(--ink);
  color: var(--paper);
}

svg {
  display: block;
}

path {
  fill: none;
  stroke: currentColor;
  stroke-width: 1.4;
}
</style>
