<script setup lang="ts">
// The contact sheet: many finishes at a glance, those first that ask for a look, and all saved at once.

import { computed, onMounted, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import type { FinishFace } from '../../api/types'
import { counted } from '../../composables/numbers'
import { useBench } from '../../stores/bench'
import { useSheet } from '../../stores/sheet'
import TopBar from '../shared/TopBar.vue'
import SheetCard from './SheetCard.vue'
import SheetSaving from './SheetSaving.vue'
import StandDialog from './StandDialog.vue'

defineEmits<{ 'show-keys': [] }>()

const sheet = useSheet()
const standing = ref(false)
const route = useRoute()
const router = useRouter()

onMounted(() => {
  useBench().close()
  document.title = 'Contact sheet · Lucky Margin'
})
watch(
  () => route.query.of,
  (of) => void sheet.load(String(of ?? '').split(',').filter(Boolean)),
  { immediate: true },
)

/** How much a finish asks for a look: a doubtful cut-out most. */
function urgency({ id, problem }: FinishFace): 'broken' | 'check' | 'look' | 'ready' | 'unknown' {
  const looks = sheet.looks[id]
  if (problem) return 'broken'
  if (looks?.some(({ warnings }) => warnings.some(({ key }) => key === 'subject'))) return 'check'
  if (!looks) return 'unknown'
  return looks.some(({ warnings }) => warnings.length) ? 'look' : 'ready'
}

const groups = computed(() =>
  (
    [
      ['broken', 'Can’t be shown'],
      ['check', 'Please check the cut-out'],
      ['look', 'Worth a look'],
      ['ready', 'Ready'],
      ['unknown', 'Being checked'],
    ] as const
  )
    .map(([key, title]) => ({ key, title, finishes: sheet.finishes.filter((finish) => urgency(finish) === key) }))
    .filter(({ finishes }) => finishes.length),
)

function open({ id }: FinishFace): void {
  void router.push({ name: 'bench', params: { id } })
}
</script>

<template>
  <div class="sheet-page">
    <TopBar>
      <button type="button" class="edged" @click="router.push({ name: 'shelf' })">Shelf</button>
      <span class="spring"></span>
      <button type="button" class="edged" @click="$emit('show-keys')">Keys ?</button>
    </TopBar>
    <main>
      <header>
        <h1>Contact sheet</h1>
        <p>{{ counted(sheet.finishes.length, 'finish', 'finishes') }}, {{ counted(sheet.pictureCount, 'picture', 'pictures') }}</p>
        <button v-if="sheet.cutOut.length" type="button" class="link" @click="standing = true">
          Same size in every picture…
        </button>
        <SheetSaving />
      </header>
      <section v-for="group in groups" :key="group.key">
        <h2>{{ group.title }} <small>{{ group.finishes.length }}</small></h2>
        <ul :aria-label="group.title">
          <SheetCard
            v-for="finish in group.finishes"
            :key="finish.id"
            :finish="finish"
            :looks="sheet.looks[finish.id] ?? null"
            :failure="sheet.failures[finish.id] ?? ''"
            @open="open(finish)"
          />
        </ul>
      </section>
    </main>
    <StandDialog v-model="standing" />
  </div>
</template>

<style scoped>
.sheet-page {
  display: flex;
  flex-direction: column;
  height: 100%;
}

main {
  flex: 1;
  padding: 16px 26px 40px;
  overflow: auto;
}

main header {
  display: flex;
  flex-wrap: wrap;
  gap: 14px;
  align-items: baseline;
  padding-bottom: 10px;
  border-bottom: 2px solid var(--ink);
}

h1 {
  font-size: 21px;
  font-weight: 700;
}

main header p,
h2 small {
  color: var(--ink-soft);
  font-size: 12px;
  font-weight: 400;
}

h2 {
  margin: 16px 0 10px;
  font-size: 16px;
  font-weight: 700;
}

ul {
  display: flex;
  flex-wrap: wrap;
  gap: 14px;
}
</style>
