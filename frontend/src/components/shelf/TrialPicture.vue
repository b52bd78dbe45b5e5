<script setup lang="ts">
// What will become of a photo with its words, before anything is made.

import { watchDebounced } from '@vueuse/core'
import { computed, ref, shallowRef, watch } from 'vue'

import { post } from '../../api/client'
import type { FinishTried, PhotoToFinish } from '../../api/types'
import { useLatest } from '../../composables/latest'
import { usePictures } from '../../composables/pictures'
import { useNotices } from '../../stores/notices'

const props = defineProps<{ wanted: PhotoToFinish; name: string }>()

/** While somebody types, the picture waits for a pause. */
const IDLE_MS = 250
const WIDTH = 250
const HEIGHT = 300

const notices = useNotices()
const { shown, ask } = usePictures('trial')
const tried = shallowRef<FinishTried | null>(null)
const problem = ref('')
const sizeId = ref('')

const size = computed(() => tried.value?.sizes.find(({ id }) => id === sizeId.value))

const trying = useLatest<PhotoToFinish>(async (wanted) => {
  try {
    tried.value = await post<FinishTried>('/finishes/trial', wanted)
    if (!size.value) sizeId.value = tried.value.sizes[0]!.id
    problem.value = ''
  } catch (error) {
    problem.value = notices.inWords(error)
  }
})

watchDebounced(() => props.wanted, trying.ask, { debounce: IDLE_MS, immediate: true })

watch([tried, size], () => {
  if (!tried.value || !size.value) return
  const { id, width, height } = size.value
  const scale = Math.min(1, window.devicePixelRatio * Math.min(WIDTH / width, HEIGHT / height))
  ask({ draft: tried.value, size_id: id, edit: null, view: 'final', scale, region: null, place: 'proof' })
})
</script>

<template>
  <figure :aria-busy="!shown">
    <figcaption>
      <label v-if="tried && tried.sizes.length > 1">
        <span class="field-label">Size shown</span>
        <select v-model="sizeId" class="text-field">
          <option v-for="one in tried.sizes" :key="one.id" :value="one.id">{{ one.name }}</option>
        </select>
      </label>
      <template v-else>
        <span class="field-label">Size shown</span>
        <p>{{ size?.name }}</p>
      </template>
    </figcaption>
    <div class="picture">
      <img v-if="shown" :src="shown.url" :alt="`${name} as it will be`" />
      <span v-else-if="!problem">Looking at the photo…</span>
    </div>
    <p v-if="problem" class="problem" role="status"><i class="check-light look"></i>{{ problem }}</p>
  </figure>
</template>

<style scoped>
figure {
  flex: none;
  width: 250px;
  min-height: 380px;
  margin: 0;
  color: var(--ink-soft);
}

figcaption {
  height: 68px;
}

figcaption p {
  padding: 8px 0;
}

img {
  max-width: 100%;
  max-height: 300px;
  box-shadow: 0 1px 4px rgb(0 0 0 / 25%);
}

select {
  width: 100%;
  margin-top: 3px;
}

.problem {
  margin-top: 8px;
  color: var(--persimmon);
}
</style>
