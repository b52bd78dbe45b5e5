<script setup lang="ts">
// Zones of this size that something lies over where it is shown.

import { computed, onScopeDispose } from 'vue'

import type { CoveredZone } from '../../../api/types'
import { useBench } from '../../../stores/bench'
import { useStage } from '../../../stores/stage'

const MOST = 4
const NEW: CoveredZone = { name: 'zone', box: { left: 0.35, top: 0.4, width: 0.3, height: 0.2 }, round: false }

const bench = useBench()
const stage = useStage()
const zones = computed(() => bench.size!.covered)

stage.setsCovered = true
onScopeDispose(() => (stage.setsCovered = false))

function set(covered: CoveredZone[]): void {
  void bench.edit({ kind: 'set_covered', covered })
}

function change(number: number, fields: Partial<CoveredZone>): void {
  set(zones.value.map((zone, place) => (place === number ? { ...zone, ...fields } : zone)))
}

function rename(number: number, event: Event): void {
  const field = event.target as HTMLInputElement
  const name = field.value.trim()
  if (name) change(number, { name })
  else field.value = zones.value[number]!.name
}

</script>

<template>
  <p class="hint">A clock, a bar or a round picture may lie over this size where people see it. Drag the zones on the picture.</p>
  <ul>
    <li v-for="(zone, number) in zones" :key="number">
      <input
        class="text-field"
        :value="zone.name"
        maxlength="40"
        :aria-label="`Name of covered zone ${number + 1}`"
        @change="rename(number, $event)"
      />
      <label class="tick">
        <input type="checkbox" :checked="zone.round" @change="change(number, { round: !zone.round })" />
        <span>round</span>
      </label>
      <button type="button" class="link" @click="set(zones.filter((_, place) => place !== number))">
        Remove<span class="visually-hidden"> {{ zone.name }}</span>
      </button>
    </li>
  </ul>
  <button v-if="zones.length < MOST" type="button" class="link strong" @click="set([...zones, NEW])">Add a zone</button>
</template>

<style scoped>
.hint {
  margin-bottom: 6px;
  color: var(--ink-soft);
  font-size: 12px;
}

li {
  display: grid;
  grid-template-columns: 1fr auto auto;
  gap: 8px;
  align-items: center;
  margin-bottom: 5px;
}
</style>
