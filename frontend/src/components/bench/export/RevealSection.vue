<script setup lang="ts">
// An animation from the plain photo to what is lifted.

import { computed, ref, watch } from 'vue'

import { Cancelled, post } from '../../../api/client'
import type { Edit, Exported, Reveal } from '../../../api/types'
import { downloadFrom } from '../../../composables/downloads'
import { formatWeight } from '../../../composables/numbers'
import { weigh } from '../../../composables/weighing'
import { useBench } from '../../../stores/bench'
import { useNotices } from '../../../stores/notices'
import { useWork } from '../../../stores/work'
import ChoiceChips, { type Choice } from '../../shared/ChoiceChips.vue'
import FoldSection from '../../shared/FoldSection.vue'
import SliderRow from '../../shared/SliderRow.vue'

const WAYS: Choice<Reveal['way']>[] = [
  { key: 'side', label: 'from the left' },
  { key: 'below', label: 'from below' },
  { key: 'fade', label: 'fade in' },
]
const FORMATS: Choice<Reveal['format']>[] = [
  { key: 'webp', label: 'WebP' },
  { key: 'gif', label: 'GIF' },
]
const TIMES = [
  { field: 'seconds', label: 'Each takes', most: 5 },
  { field: 'pause', label: 'Then stays', most: 10 },
] as const
const LABEL = 'Making the animation'

const bench = useBench()
const notices = useNotices()
const work = useWork()
const reveal = computed(() => bench.here!.export.reveal)
const summary = computed(() => `${WAYS.find(({ key }) => key === reveal.value.way)!.label}, ${reveal.value.seconds} s`)
const saved = ref<Exported | null>(null)

watch(
  () => [bench.saved?.revision, bench.sizeId],
  () => (saved.value = null),
)

const change = (fields: Partial<Reveal>): Edit => ({
  kind: 'set_export',
  changes: { reveal: { ...reveal.value, ...fields } },
  only_this_size: bench.onlyThisSize,
})

async function save(): Promise<void> {
  if (!(await bench.settle()) || !bench.saved) return
  const { id: finish, revision } = bench.saved
  const size_id = bench.sizeId
  try {
    const file = await work.run(LABEL, (following) =>
      weigh({ finish, revision, size_id, view: 'reveal' }, following),
    )
    const wanted = { revision, size_id, reveal: true, sha256: file.sha256 }
    const exported = await post<Exported>(`/finishes/${finish}/exports`, wanted)
    downloadFrom(`/api/exports/${exported.id}/file`, exported.file_name)
    saved.value = exported
    if (!file.meets_cap) notices.say('The animation is heavier than the limit; fewer pixels make it lighter.', true)
  } catch (error) {
    if (!(error instanceof Cancelled)) notices.tell(error)
  }
}
</script>

<template>
  <FoldSection title="Reveal" :summary="summary">
    <ChoiceChips
      label="How it comes in"
      :choices="WAYS"
      :chosen="reveal.way"
      @choose="(way) => bench.edit(change({ way }))"
    />
    <SliderRow
      v-for="{ field, label, most } in TIMES"
      :key="field"
      :label="label"
      unit="s"
      :value="reveal[field]"
      :max="most"
      :step="0.1"
      :digits="1"
      @move="(seconds) => bench.drag(change({ [field]: seconds }))"
      @change="(seconds) => bench.slide(change({ [field]: seconds }))"
    />
    <div class="save">
      <ChoiceChips
        label="Format of the animation"
        :choices="FORMATS"
        :chosen="reveal.format"
        @choose="(format) => bench.edit(change({ format }))"
      />
      <button type="button" class="action" :disabled="work.isRunning(LABEL)" @click="save">Save animation</button>
    </div>
    <figure v-if="saved">
      <img :src="`/api/exports/${saved.id}/file`" alt="The animation" />
      <figcaption>{{ saved.file_name }}, {{ formatWeight(saved.bytes) }}</figcaption>
    </figure>
  </FoldSection>
</template>

<style scoped>
.save {
  display: flex;
  justify-content: space-between;
  gap: 8px;
  align-items: center;
  margin-top: 8px;
}

figure {
  margin: 10px 0 0;
}

img {
  display: block;
  max-width: 100%;
  max-height: 180px;
}

figcaption {
  margin-top: 4px;
  color: var(--ink-soft);
  font-size: 12px;
  overflow-wrap: anywhere;
}
</style>
