<script setup lang="ts">
import { useTitle } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'

import { get } from '../../api/client'
import type { Photo } from '../../api/types'
import { useCuttingErrand } from '../../composables/cuttingErrand'
import { useBench } from '../../stores/bench'
import { useNotices } from '../../stores/notices'
import { useStage } from '../../stores/stage'
import BenchBar from './BenchBar.vue'
import CuttingBanner from './CuttingBanner.vue'
import CheckPanel from './proofs/CheckPanel.vue'
import DocketPanel from './DocketPanel.vue'
import ProofPanel from './proofs/ProofPanel.vue'
import StaleBanner from './StaleBanner.vue'
import StageArea from './stage/StageArea.vue'
import StageBar from './stage/StageBar.vue'

const props = defineProps<{ id: string }>()
defineEmits<{ 'show-keys': [] }>()

const bench = useBench()
const stage = useStage()
const notices = useNotices()
const router = useRouter()
const { errand, open: openErrand } = useCuttingErrand()
const photo = ref<Photo | null>(null)
/** Proofs at the width people see them at, for which their column opens over the stage. */
const asSeen = ref(false)

useTitle(computed(() => (bench.document ? `${bench.document.name} · Lucky Margin` : 'Lucky Margin')))

watch(
  () => props.id,
  async (id) => {
    photo.value = null
    stage.fit()
    stage.before = false
    try {
      await bench.load(id)
      if (errand.value) openErrand()
      const sha256 = bench.document?.photo?.sha256
      if (sha256) photo.value = await get<Photo>(`/photos/${sha256}`)
    } catch (error) {
      notices.tell(error)
      await router.replace({ name: 'shelf' })
    }
  },
  { immediate: true },
)
</script>

<template>
  <div class="bench">
    <BenchBar @show-keys="$emit('show-keys')" />
    <div v-if="bench.draft && bench.size" class="columns">
      <DocketPanel :photo="photo" />
      <main class="middle on-dark">
        <StaleBanner v-if="bench.stale" />
        <CuttingBanner v-else-if="errand" />
        <StageArea />
        <StageBar />
      </main>
      <aside class="proofs" :class="{ seen: asSeen }" aria-label="Proofs and checks">
        <ProofPanel v-model:as-seen="asSeen" />
        <CheckPanel />
      </aside>
    </div>
  </div>
</template>

<style scoped>
.bench {
  height: 100%;
  background: var(--surround-mid);
}

.columns {
  display: grid;
  grid-template-rows: minmax(0, 1fr);
  grid-template-columns: 308px minmax(0, 1fr) 226px;
  height: calc(100% - 46px);
}

.middle {
  position: relative;
  display: grid;
  grid-template-rows: minmax(0, 1fr) 38px;
  grid-template-columns: minmax(0, 1fr);
  min-width: 0;
}

.proofs {
  overflow: auto;
  padding: 12px 14px;
  border-left: 1px solid #777777;
  background: var(--proof);
}

.proofs.seen {
  position: relative;
  z-index: 3;
  width: max(226px, min(760px, calc(100vw - 330px)));
  justify-self: end;
  box-shadow: -2px 0 12px rgb(0 0 0 / 30%);
}

@media (max-width: 1200px) {
  .columns {
    grid-template-columns: 296px minmax(0, 1fr) 190px;
  }
}
</style>
