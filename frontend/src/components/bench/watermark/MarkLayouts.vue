<script setup lang="ts">
// Arrangements to start from, each with the person's own words and icon.

import { computed, onMounted, shallowRef } from 'vue'

import { get } from '../../../api/client'
import type { MarkDesign, MarkLayout } from '../../../api/types'
import { vRadios } from '../../../composables/radios'
import { useNotices } from '../../../stores/notices'
import MarkPicture from './MarkPicture.vue'

const props = defineProps<{ design: MarkDesign }>()
const emit = defineEmits<{ choose: [design: MarkDesign] }>()

const SAMPLE = { words: 'Pebblewick', line: 'pottery' }

const notices = useNotices()
const layouts = shallowRef<MarkLayout[]>([])

onMounted(async () => {
  try {
    layouts.value = (await get<{ layouts: MarkLayout[] }>('/marks/layouts')).layouts
  } catch (error) {
    notices.tell(error)
  }
})

/** The arrangement with what is on the mark, or with sample words while nothing is. */
function filled({ design }: MarkLayout): MarkDesign {
  const { words, line, icon, colours } = props.design
  const own = words.trim() || line.trim() ? { words, line } : SAMPLE
  return { ...design, ...own, colours, icon: design.icon ? (icon ?? design.icon) : null }
}
const offered = computed(() => layouts.value.map((one) => ({ name: one.name, design: filled(one) })))
const isChosen = (design: MarkDesign) =>
  (['layout', 'frame', 'rule', 'family', 'weight', 'case'] as const).every((field) => design[field] === props.design[field]) &&
  !design.icon === !props.design.icon
</script>

<template>
  <div v-radios class="layouts" role="radiogroup" aria-label="Layout">
    <button
      v-for="{ name, design: one } in offered"
      :key="name"
      type="button"
      role="radio"
      :class="{ on: isChosen(one) }"
      :aria-label="name"
      :aria-checked="isChosen(one)"
      :data-tip="name"
      @click="emit('choose', one)"
    >
      <MarkPicture :design="one" shade="dark" alt="" />
    </button>
  </div>
</template>

<style scoped>
.layouts {
  display: grid;
  grid-template-columns: repeat(6, minmax(0, 1fr));
  gap: 6px;
}

button {
  height: 68px;
  padding: 5px;
  border: 1px solid var(--edge);
  border-radius: 4px;
  background: #ffffff;
}

button > * {
  height: 100%;
}

button:hover {
  border-color: var(--ink);
}

button.on {
  border-color: var(--clover);
  box-shadow: inset 0 0 0 1.5px var(--clover);
}
</style>
