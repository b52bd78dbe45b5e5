<script setup lang="ts">
import { useTitle } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { get } from '../../api/client'
import type { Photo } from '../../api/types'
import { useColumns } from '../../composables/columns'
import { useCuttingErrand } from '../../composables/cuttingErrand'
import { useFirstSteps } from '../../composables/firstSteps'
import { useBench } from '../../stores/bench'
import { useNotices } from '../../stores/notices'
import { useStage } from '../../stores/stage'
import BenchBar from './BenchBar.vue'
import BenchHint from './BenchHint.vue'
import ColumnGrip from './ColumnGrip.vue'
import CuttingBanner from './CuttingBanner.vue'
import CheckPanel from './proofs/CheckPanel.vue'
import DocketPanel from './DocketPanel.vue'
import ProofPanel from './proofs/ProofPanel.vue'
import StaleBanner from './StaleBanner.vue'
import SeenSizes from './stage/SeenSizes.vue'
import StageArea from './stage/StageArea.vue'
import StageBar from './stage/StageBar.vue'

const props = defineProps<{ id: string }>()
defineEmits<{ 'show-keys': [] }>()

const bench = useBench()
const stage = useStage()
const notices = useNotices()
const router = useRouter()
const route = useRoute()
const { begin: beginFirst } = useFirstSteps()
const { errand, open: openErrand } = useCuttingErrand()
const photo = ref<Photo | null>(null)
const { widths } = useColumns()
const columns = computed(() => ({ '--docket': `${widths.value.docket}px`, '--proofs': `${widths.value.proofs}px` }))

useTitle(computed(() => (bench.document ? `${bench.document.name} · Lucky Margin` : 'Lucky Margin')))

watch(
  () => props.id,
  async (id) => {
    stage.fit()
    stage.before = false
    stage.asSeen = false
    try {
      await bench.load(id)
      if (errand.value) openErrand()
      const { first } = route.query
      if (first) {
        await router.replace({ query: {} })
        void beginFirst(first)
      }
    } catch (error) {
      notices.tell(error)
      await router.replace({ name: 'shelf' })
    }
  },
  { immediate: true },
)

watch(
  () => bench.document?.photo?.sha256,
  async (sha256) => {
    photo.value = null
    if (!sha256) return
    const found = await get<Photo>(`/photos/${sha256}`).catch(notices.tell)
    if (found && sha256 === bench.document?.photo?.sha256) photo.value = found
  },
  { immediate: true },
)
</script>

<template>
  <div class="bench">
    <BenchBar @show-keys="$emit('show-keys')" />
    <div v-if="bench.draft && bench.size" class="columns" :style="columns">
      <section class="side" aria-label="Docket">
        <DocketPanel :photo="photo" />
        <ColumnGrip column="docket" label="Width of the docket" />
      </section>
      <main class="middle on-dark">
        <StaleBanner v-if="bench.stale" />
        <CuttingBanner v-else-if="errand" />
        <SeenSizes v-if="stage.asSeen" />
        <div v-else class="stage-place">
          <StageArea />
          <BenchHint />
        </div>
        <StageBar />
      </main>
      <aside class="side" aria-label="Proofs and checks">
        <ColumnGrip column="proofs" label="Width of the proofs" />
        <div class="proofs">
          <ProofPanel />
          <CheckPanel />
        </div>
      </aside>
    </div>
  </div>
</template>

<style scoped>
.bench {
  display: flex;
  flex-direction: column;
  height: 100%;
  background: var(--surround-mid);
}

.columns {
  display: grid;
  flex: 1;
  grid-template-rows: minmax(0, 1fr);
  grid-template-columns: var(--docket) minmax(0, 1fr) var(--proofs);
  min-height: 0;
}

.side {
  position: relative;
  min-height: 0;
}

.middle {
  position: relative;
  display: grid;
  grid-template-rows: minmax(0, 1fr) auto;
  grid-template-columns: minmax(0, 1fr);
  min-width: 0;
}

.stage-place {
  position: relative;
  display: grid;
  grid-template-rows: minmax(0, 1fr);
  grid-template-columns: minmax(0, 1fr);
  min-height: 0;
}

.proofs {
  height: 100%;
  padding: 12px 14px;
  overflow: auto;
  border-left: 1px solid #777777;
  background: var(--proof);
}

/* On a narrow window, or one that is zoomed in far, the stage comes first and the rest below it. */
@media (max-width: 1000px) {
  .bench {
    display: block;
    overflow: hidden auto;
  }

  .columns {
    display: flex;
    flex-direction: column;
  }

  .middle {
    order: -1;
    height: max(300px, 52vh);
  }

  .proofs {
    height: auto;
    border-left: 0;
  }
}

/* Where there is height enough, the stage stays in sight while the docket scrolls under it. */
@media (max-width: 1000px) and (min-height: 700px) {
  .middle {
    position: sticky;
    top: 0;
    z-index: 4;
  }
}
</style>
