<script setup lang="ts">
import { computed, onMounted, ref, shallowRef } from 'vue'

import { get, remove } from '../../../api/client'
import type { Edit, LookList, LookUse, SavedLook, ToneChanges } from '../../../api/types'
import { useToneEdits } from '../../../composables/toneEdits'
import { useBench } from '../../../stores/bench'
import { useNotices } from '../../../stores/notices'
import SliderRow from '../../shared/SliderRow.vue'
import TryPicture from '../TryPicture.vue'
import LookFiles from './LookFiles.vue'
import { vRadios } from '../../../composables/radios'

const bench = useBench()
const notices = useNotices()
const { tone, change } = useToneEdits()
const kept = shallowRef<LookList>({ stock: [], own: [] })
const strength = computed(() => tone.value.look?.strength ?? 100)
const deleting = ref(false)

interface Offered {
  key: string
  name: string
  look: LookUse | null
  saved?: SavedLook
}

const offered = computed<Offered[]>(() => [
  { key: 'none', name: 'none', look: null },
  ...kept.value.own.map((saved) => ({
    key: `own-${saved.id}`,
    name: saved.look.kind === 'stock' ? saved.look.key : saved.look.name,
    look: saved.look,
    saved,
  })),
  ...kept.value.stock.map(({ key, name }) => ({
    key,
    name,
    look: { kind: 'stock' as const, key, strength: 100 },
  })),
])

async function load(): Promise<void> {
  try {
    kept.value = await get<LookList>('/looks')
  } catch (error) {
    notices.tell(error)
  }
}
onMounted(load)

function use(look: LookUse | null, share = strength.value): Edit {
  return change({ look: look && { ...look, strength: share } } as Partial<ToneChanges>)
}

/** Whether it is the look of the tone, at whatever strength. */
function isOn(look: LookUse | null): boolean {
  const now = tone.value.look
  if (!look || !now) return look === now
  return JSON.stringify({ ...look, strength: 0 }) === JSON.stringify({ ...now, strength: 0 })
}

async function forget(saved: SavedLook): Promise<void> {
  try {
    await remove(`/looks/${saved.id}`)
  } catch (error) {
    notices.tell(error)
  }
  await load()
  if (!kept.value.own.length) deleting.value = false
}
</script>

<template>
  <div v-radios class="looks" role="radiogroup" aria-label="Look">
    <span v-for="{ key, name, look, saved } in offered" :key="key">
      <TryPicture
        :name="name"
        :channel="`look-${key}`"
        :edit="use(look, 100)"
        :is-on="isOn(look)"
        @choose="bench.edit(use(look))"
        @hover="(on) => (bench.tryOut = on ? use(look) : null)"
      />
      <button
        v-if="deleting && saved"
        type="button"
        class="forget"
        :aria-label="`Remove the look ${name}`"
        @click="forget(saved)"
      >
        ×
      </button>
    </span>
  </div>
  <SliderRow
    v-if="tone.look"
    label="Strength"
    :value="tone.look.strength"
    :max="100"
    @move="(share) => bench.drag(use(tone.look!, share))"
    @change="(share) => bench.slide(use(tone.look!, share))"
  />
  <LookFiles @kept="load" />
  <button v-if="kept.own.length" type="button" class="link" @click="deleting = !deleting">
    {{ deleting ? 'Done' : 'Remove own looks' }}
  </button>
</template>

<style scoped>
.looks {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 6px;
}

.looks span {
  position: relative;
  display: grid;
  min-width: 0;
}

.forget {
  position: absolute;
  top: -4px;
  right: -4px;
  width: 24px;
  height: 24px;
  padding: 0;
  border: 1px solid var(--edge);
  border-radius: 50%;
  background: var(--card);
}
</style>
