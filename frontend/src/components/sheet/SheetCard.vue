<script setup lang="ts">
import { computed } from 'vue'

import type { FinishFace, SizeLooks } from '../../api/types'

const props = defineProps<{ finish: FinishFace; looks: SizeLooks[] | null; failure: string }>()
defineEmits<{ open: [] }>()

const HEIGHT = 118
const WIDEST = 260
const MOST_TOLD = 2

const pictures = computed(() =>
  props.finish.sizes.map(({ id, name, width, height }) => {
    const high = Math.max(24, Math.min(HEIGHT, WIDEST / (width / height)))
    const asked = Math.min(1024, Math.ceil(high * window.devicePixelRatio))
    return {
      name,
      high,
      wide: Math.max(16, Math.min(WIDEST, high * (width / height))),
      looks: !!props.looks?.find(({ size_id }) => size_id === id)?.warnings.length,
      src: `/api/finishes/${props.finish.id}/picture?size_id=${id}&height=${asked}&etag=${props.finish.etag}`,
    }
  }),
)
/** Each reason once, as it is of the first size, and of how many others it is too. */
const reasons = computed(() => {
  const byKey = new Map<string, string[]>()
  for (const { warnings } of props.looks ?? [])
    for (const { key, text } of warnings) byKey.set(key, [...(byKey.get(key) ?? []), text])
  return [...byKey.values()].map(([first, ...others]) => {
    const more = others.length === 1 ? ' (And once more.)' : ` (And ${others.length} times more.)`
    return `${first}${others.length ? more : ''}`
  })
})
</script>

<template>
  <li>
    <button type="button" :aria-label="`Open ${finish.name}`" @click="$emit('open')">
      <span v-for="picture in pictures" :key="picture.src" class="picture">
        <img
          :src="picture.src"
          :style="{ width: `${picture.wide}px`, height: `${picture.high}px` }"
          :alt="picture.name"
          loading="lazy"
          draggable="false"
        />
        <i v-if="picture.looks" class="check-light look" :title="`${picture.name} asks for a look`"></i>
      </span>
    </button>
    <b :title="finish.name">{{ finish.name }}</b>
    <p v-if="finish.problem" class="wrong">{{ finish.problem }}</p>
    <p v-else-if="failure" class="wrong" role="status">Not saved: {{ failure }}</p>
    <p v-for="reason in reasons.slice(0, MOST_TOLD)" :key="reason">{{ reason }}</p>
    <p v-if="reasons.length > MOST_TOLD">And {{ reasons.length - MOST_TOLD }} more.</p>
  </li>
</template>

<style scoped>
li {
  max-width: 470px;
  padding: 10px;
  background: var(--paper);
  box-shadow: 0 1px 4px rgb(30 42 47 / 25%);
}

button {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: flex-end;
  padding: 0;
  border: 0;
  background: none;
}

.picture {
  position: relative;
}

.picture i {
  position: absolute;
  top: 5px;
  right: 5px;
}

img {
  display: block;
  box-shadow: 0 0 0 1px rgb(30 42 47 / 22%);
  background: repeating-conic-gradient(#ffffff 0 25%, #e4e2dd 0 50%) 0 0 / 12px 12px;
}

b {
  display: block;
  margin-top: 6px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

p {
  color: var(--ink-soft);
  font-size: 12px;
}

.wrong {
  color: var(--persimmon);
}
</style>
