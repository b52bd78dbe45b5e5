<script setup lang="ts">
// The stock backdrops.

import { computed } from 'vue'

import type { BackdropShown, StockBackdrop } from '../../api/types'
import { useLibrary } from '../../composables/library'
import LibraryFaces, { type Face } from './LibraryFaces.vue'
import LibraryFilters from './LibraryFilters.vue'

defineProps<{ label: string; chosen: string | null }>()
const emit = defineEmits<{ choose: [ground: StockBackdrop]; hover: [ground: StockBackdrop | null] }>()

const { query, items, kinds, licence, loaded, like, taken } = useLibrary<BackdropShown>('backdrops')

const faces = computed<Face[]>(() =>
  items.value.map((item) => ({
    key: item.key,
    name: item.name,
    favourite: item.favourite,
    picture: `/api/library/backdrops/${item.ground.key}/picture`,
    more: item.uses ? `in ${users(item)}` : undefined,
  })),
)

/** Which finishes have it, by name; of many, how many more. */
function users({ uses, used_in }: BackdropShown): string {
  const others = uses > used_in.length ? [`${uses - used_in.length} more`] : []
  return new Intl.ListFormat('en-GB').format([...used_in.map((name) => `“${name}”`), ...others])
}

const groundOf = (key: string) => items.value.find((item) => item.key === key)!.ground

function choose(key: string): void {
  emit('choose', groundOf(key))
  void taken(key)
}
</script>

<template>
  <LibraryFilters v-model="query" label="backdrops" placeholder="linen, wood, autumn …" :kinds="kinds" />
  <LibraryFaces
    v-if="faces.length"
    :label="`${label}, which`"
    :faces="faces"
    :chosen="chosen && `backdrop:${chosen}`"
    @choose="choose"
    @hover="(key) => emit('hover', key ? groundOf(key) : null)"
    @like="like"
  />
  <p v-else-if="loaded" class="none">No backdrop is like that; try another word or any colour.</p>
  <p v-if="licence" class="licence">{{ licence }}</p>
</template>

<style scoped>
.none,
.licence {
  color: var(--ink-soft);
  font-size: 12px;
}

.licence {
  font-size: 11px;
}
</style>
