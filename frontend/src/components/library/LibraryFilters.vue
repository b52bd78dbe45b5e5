<script setup lang="ts">
// What to look for in the library: words, a kind, a colour, favourites, what was used last.

import type { LibraryQuery } from '../../composables/library'
import { COLOUR_NAMES } from './colours'

const props = defineProps<{
  /** What is looked through, for screen readers. */
  label: string
  placeholder: string
  kinds?: string[]
}>()
const query = defineModel<LibraryQuery>({ required: true })

const ONLY = [
  { key: 'favourites', label: 'Favourites' },
  { key: 'recent', label: 'Recent' },
] as const

function change(fields: Partial<LibraryQuery>): void {
  Object.assign(query.value, fields)
}

const valueOf = (event: Event) => (event.target as HTMLSelectElement).value
</script>

<template>
  <div class="filters" role="search" :aria-label="`Look through ${props.label}`">
    <input
      type="search"
      class="text-field"
      maxlength="60"
      :aria-label="`Search ${label}`"
      :placeholder="placeholder"
      :value="query.search"
      @input="(event) => change({ search: valueOf(event) })"
    />
    <select
      v-if="kinds?.length"
      class="text-field"
      :aria-label="`Kind of ${label}`"
      :value="query.kind"
      @change="(event) => change({ kind: valueOf(event) })"
    >
      <option value="">any kind</option>
      <option v-for="kind in kinds" :key="kind" :value="kind">{{ kind }}</option>
    </select>
    <select
      class="text-field"
      :aria-label="`Colour of ${label}`"
      :value="query.colour"
      @change="(event) => change({ colour: valueOf(event) as LibraryQuery['colour'] })"
    >
      <option value="">any colour</option>
      <option v-for="colour in COLOUR_NAMES" :key="colour" :value="colour">{{ colour }}</option>
    </select>
    <div class="only">
      <button
        v-for="{ key, label: words } in ONLY"
        :key="key"
        type="button"
        class="toggle"
        :aria-pressed="query.only === key"
        @click="change({ only: query.only === key ? '' : key })"
      >
        {{ words }}
      </button>
    </div>
  </div>
</template>

<style scoped>
.filters {
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
}

.text-field {
  flex: 1 1 90px;
  width: auto;
  min-width: 0;
  font-size: 12px;
}

input.text-field {
  flex-basis: 100%;
}

.only {
  display: flex;
  gap: 5px;
}

.toggle {
  min-height: 28px;
  padding: 2px 8px;
  border: 1px solid var(--edge);
  border-radius: 14px;
  background: #ffffff;
  font-size: 12px;
}

.toggle[aria-pressed='true'] {
  border-color: var(--clover);
  background: var(--clover-pale);
  box-shadow: inset 0 0 0 1px var(--clover);
}
</style>
