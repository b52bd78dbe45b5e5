<script setup lang="ts">
// Every piece, the one in front first: chosen, hidden, locked, put in order.

import { computed } from 'vue'

import { usePieceEdits } from '../../../composables/pieceEdits'
import { pieceName } from '../../../composables/pieceNames'
import { useTips, vTip } from '../../../composables/explanations'
import { useBench } from '../../../stores/bench'
import { useSelection } from '../../../stores/selection'
import PieceThumb from './PieceThumb.vue'

const bench = useBench()
const tip = useTips()
const selection = useSelection()
const { pieces, set } = usePieceEdits()
const frontFirst = computed(() => [...pieces.value].reverse())

function choose(event: MouseEvent, id: string): void {
  if (event.shiftKey || event.ctrlKey || event.metaKey) selection.toggle(id)
  else selection.choose([id])
}

function order(id: string, to: 'forward' | 'backward'): void {
  void bench.edit({ kind: 'order_piece', id, to })
}
</script>

<template>
  <ol aria-label="Pieces, front first">
    <li v-for="piece in frontFirst" :key="piece.id" :class="{ on: selection.ids.includes(piece.id), off: !piece.on }">
      <button
        type="button"
        class="name"
        :aria-pressed="selection.ids.includes(piece.id)"
        @click="(event) => choose(event, piece.id)"
      >
        <PieceThumb :id="piece.id" />
        <span>{{ pieceName(piece) }}</span>
      </button>
      <span v-if="selection.only?.id === piece.id && pieces.length > 1" class="order">
        <button
          v-tip="tip('In front')"
          type="button"
          class="link"
          :disabled="piece === frontFirst[0]"
          @click="order(piece.id, 'forward')"
        >
          In front
        </button>
        <button
          v-tip="tip('Behind')"
          type="button"
          class="link"
          :disabled="piece === pieces[0]"
          @click="order(piece.id, 'backward')"
        >
          Behind
        </button>
      </span>
      <button
        type="button"
        :data-tip="piece.locked ? 'Unlock' : 'Lock'"
        :aria-label="`${piece.locked ? 'Unlock' : 'Lock'} ${pieceName(piece)}`"
        :aria-pressed="piece.locked"
        @click="bench.edit(set({ locked: !piece.locked }, [piece.id]))"
      >
        <svg width="12" height="13" viewBox="0 0 12 13" aria-hidden="true">
          <path d="M2 6h8v6H2z" fill="currentColor" />
          <path :d="piece.locked ? 'M4 6V4a2 2 0 0 1 4 0v2' : 'M4 6V4a2 2 0 0 1 4-.6'" fill="none" stroke="currentColor" stroke-width="1.400" />
        </svg>
      </button>
      <button
        type="button"
        :data-tip="piece.on ? 'Hide' : 'Show'"
        :aria-label="`${piece.on ? 'Hide' : 'Show'} ${pieceName(piece)}`"
        :aria-pressed="!piece.on"
        @click="bench.edit(set({ on: !piece.on }, [piece.id]))"
      >
        <svg width="15" height="11" viewBox="0 0 15 11" aria-hidden="true">
          <path d="M1 5.500C4 .7 11 .7 14 5.500 11 10.300 4 10.300 1 5.500z" fill="none" stroke="currentColor" stroke-width="1.300" />
          <circle v-if="piece.on" cx="7.500" cy="5.500" r="2" fill="currentColor" />
          <path v-else d="M2 10L13 1" stroke="currentColor" stroke-width="1.300" />
        </svg>
      </button>
    </li>
  </ol>
</template>

<style scoped>
ol {
  grid-template-columns: minmax(0, 1fr);
  display: grid;
  gap: 2px;
  max-height: 216px;
  margin: 10px -4px 0;
  padding: 2px;
  overflow-y: auto;
}

li {
  display: flex;
  align-items: center;
  border: 1px solid var(--rule);
  border-radius: 4px;
  background: #ffffff;
}

li.on {
  border-color: var(--ink);
  box-shadow: inset 0 0 0 1px var(--ink);
}

li.off .name {
  color: var(--ink-soft);
  text-decoration: line-through;
}

button:not(.link) {
  display: grid;
  place-items: center;
  flex: none;
  min-width: 25px;
  height: 34px;
  padding: 0 3px;
  border: 0;
  background: none;
}

button.name {
  display: flex;
  flex: 1;
  gap: 7px;
  min-width: 0;
  padding: 0 4px 0 1px;
  font-size: 12px;
  text-align: left;
}

.name span {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

.order {
  display: flex;
  flex: none;
  gap: 7px;
  padding: 0 3px;
}

.order .link {
  font-size: 12px;
}

.link:disabled {
  color: var(--ink-soft);
  text-decoration: none;
}
</style>
