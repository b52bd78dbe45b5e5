<script setup lang="ts">
// What will become of a photo with its words, and what then asks for a look, before anything is
// made.

import { watchDebounced } from '@vueuse/core'
import { computed, ref, shallowRef, watch } from 'vue'

import { post } from '../../api/client'
import { postAbout } from '../../api/drafts'
import type { Check, FinishTried, PhotoToFinish } from '../../api/types'
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
const looks = shallowRef<Check[]>([])
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

const checking = useLatest<{ draft: FinishTried; size_id: string }>(async ({ draft, size_id }) => {
  try {
    const { checks } = await postAbout<{ checks: Check[] }>(draft, '/bench/checks', { size_id })
    looks.value = checks.filter(({ severity }) => severity === 'warning')
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
  checking.ask({ draft: tried.value, size_id: id })
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
    <ul v-if="!problem" aria-label="Worth a look">
      <li v-for="look in looks" :key="look.text"><i class="check-light look"></i>{{ look.text }}</li>
    </ul>
    <p v-else class="problem" role="status"><i class="check-light look"></i>{{ problem }}</p>
  </figure>
</template>

<style scoped>
figure {
  flex: none;
  width: 250px;
  min-height: 420px;
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

ul {
  margin: 12px 0 0;
  padding: 0;
  list-style: none;
}

li,
.problem {
  display: flex;
  gap: 8px;
  align-items: baseline;
  margin-top: 6px;
  font-size: 12px;
}

.problem {
  color: var(--persimmon);
}
</style>
