<script setup lang="ts">
import { onMounted, ref } from 'vue'

import { get } from '../../../api/client'
import type { LookUse, ToneChanges } from '../../../api/types'
import { useToneEdits } from '../../../composables/toneEdits'
import { useBench } from '../../../stores/bench'
import { useNotices } from '../../../stores/notices'
import SliderRow from '../../shared/SliderRow.vue'
import LookPicture from './LookPicture.vue'

type Key = LookUse['key']

const bench = useBench()
const notices = useNotices()
const { tone, change } = useToneEdits()
const looks = ref<{ key: Key; name: string }[]>([])

onMounted(async () => {
  try {
    looks.value = (await get<{ looks: { key: Key; name: string }[] }>('/bench/looks')).looks
  } catch (error) {
    notices.tell(error)
  }
})

function look(key: Key | null, strength = tone.value.look?.strength ?? 100): Partial<ToneChanges> {
  return { look: key && { key, strength } }
}
</script>

<template>
  <div class="looks" role="group" aria-label="Look">
    <LookPicture
      v-for="{ key, name } in [{ key: null, name: 'none' }, ...looks]"
      :key="name"
      :name="name"
      :edit="change(look(key, 100))"
      :is-on="(tone.look?.key ?? null) === key"
      @choose="bench.edit(change(look(key)))"
      @hover="(on) => (bench.tryOut = on ? change(look(key)) : null)"
    />
  </div>
  <SliderRow
    v-if="tone.look"
    label="Strength"
    :value="tone.look.strength"
    :max="100"
    @move="(strength) => bench.drag(change(look(tone.look!.key, strength)))"
    @change="(strength) => bench.slide(change(look(tone.look!.key, strength)))"
  />
</template>

<style scoped>
.looks {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 6px;
}
</style>
