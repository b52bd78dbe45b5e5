<script setup lang="ts">
// The edge between the stage and a column beside it, which is dragged to make that wider.

import { COLUMNS, useColumns, type Column } from '../../composables/columns'
import { followPointer } from '../../composables/drags'
import { arrowWay } from '../../composables/keyNames'

const props = defineProps<{ column: Column; label: string }>()

const { widths, resize, reset } = useColumns()
/** The docket lies left of its edge, the proofs right of theirs. */
const sign = props.column === 'docket' ? 1 : -1

function drag(event: PointerEvent): void {
  const from = widths.value[props.column]
  followPointer(event, { move: (dx) => resize(props.column, from + sign * dx), end: () => {} })
}

function nudge(event: KeyboardEvent): void {
  const way = arrowWay(event)
  if (!way?.[0]) return
  event.preventDefault()
  event.stopPropagation()
  resize(props.column, widths.value[props.column] + sign * 8 * way[0])
}
</script>

<template>
  <div
    class="column-grip"
    :class="`beside-${column}`"
    role="separator"
    tabindex="0"
    aria-orientation="vertical"
    :aria-label="label"
    :aria-valuenow="widths[column]"
    :aria-valuemin="COLUMNS[column].least"
    :aria-valuemax="COLUMNS[column].most"
    @pointerdown.prevent="drag"
    @keydown="nudge"
    @dblclick="reset(column)"
  ></div>
</template>

<style scoped>
.column-grip {
  position: absolute;
  top: 0;
  bottom: 0;
  z-index: 2;
  width: 9px;
  cursor: col-resize;
  touch-action: none;
}

.beside-docket {
  right: -5px;
}

.beside-proofs {
  left: -5px;
}

.column-grip:hover,
.column-grip:focus-visible {
  background: linear-gradient(90deg, transparent 3px, var(--ink) 3px 6px, transparent 6px);
}

@media (max-width: 1000px) {
  .column-grip {
    display: none;
  }
}
</style>
