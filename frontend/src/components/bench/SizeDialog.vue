<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import type { LibrarySize, SizePlan } from '../../api/types'
import { useSizes } from '../../stores/sizes'
import AppDialog from '../shared/AppDialog.vue'
import OwnSizeForm from './OwnSizeForm.vue'
import { planInWords, ratioOfPlan } from './plans'

const props = defineProps<{
  title: string
  /** Only sizes that say both sides, as there is no photo to follow. */
  withoutPhoto?: boolean
}>()
const emit = defineEmits<{ choose: [plan: SizePlan] }>()
const open = defineModel<boolean>({ required: true })

interface Offer {
  key: string
  plan: SizePlan
  purpose: string
  ownId?: number
}

const GROUPS: Record<LibrarySize['group'], string> = {
  posts: 'Posts',
  pages: 'Pages',
  small: 'Small pictures',
  paper: 'On paper',
}
const AS_CROPPED: SizePlan = {
  name: 'As cropped',
  pixels: { kind: 'as_cropped', ratio: null },
  shape: { kind: 'rectangle', radius: 0, scale: 1, x: 0.5, y: 0.5 },
  seen_width: 600,
  covered: [],
  in_column: false,
  overrides: { turn: {}, tone: {}, border: {}, export: {} } as SizePlan['overrides'],
}

const sizes = useSizes()
const search = ref('')

watch(open, (now) => {
  if (!now) return
  search.value = ''
  void sizes.load()
})

const groups = computed(() => {
  const own: Offer[] = sizes.own.map(({ id, plan }) => ({ key: `own-${id}`, plan, purpose: 'saved by you', ownId: id }))
  const first: Offer = { key: 'as-cropped', plan: AS_CROPPED, purpose: 'the photo’s own pixels' }
  const named = Object.entries(GROUPS).map(([group, title]) => ({
    title,
    offers: sizes.library.filter((one) => one.group === group) as Offer[],
  }))
  return [{ title: 'Your own', offers: [first, ...own] }, ...named]
    .map(({ title, offers }) => ({ title, offers: offers.filter(isOffered) }))
    .filter(({ offers }) => offers.length)
})

function isOffered({ plan, purpose }: Offer): boolean {
  if (props.withoutPhoto && plan.pixels.kind !== 'fixed') return false
  const words = `${plan.name} ${purpose} ${planInWords(plan)}`.toLowerCase()
  return search.value.toLowerCase().split(/\s+/).every((part) => words.includes(part))
}

function choose(plan: SizePlan): void {
  open.value = false
  emit('choose', plan)
}

/** The sides of a small outline of these proportions. */
function outline(plan: SizePlan): { width: string; height: string; borderRadius: string } {
  const ratio = ratioOfPlan(plan)
  const width = Math.min(26, 20 * Math.sqrt(ratio))
  const borderRadius = plan.shape.kind === 'circle' ? '50%' : '2px'
  return { width: `${width}px`, height: `${Math.max(5, width / ratio)}px`, borderRadius }
}
</script>

<template>
  <AppDialog v-model="open" :title="title" :width="720">
    <div class="columns">
      <div>
        <input
          v-model="search"
          class="text-field"
          type="search"
          aria-label="Search sizes"
          placeholder="Search: post, header, 1080, mm…"
        />
        <div class="list">
          <section v-for="{ title: group, offers } in groups" :key="group">
            <h3>{{ group }}</h3>
            <ul>
              <li v-for="{ key, plan, purpose, ownId } in offers" :key="key">
                <button type="button" class="offer" @click="choose(plan)">
                  <span class="picture"><i :style="outline(plan)"></i></span>
                  <span>
                    <b>{{ plan.name }}</b>
                    <span>{{ key === 'as-cropped' ? purpose : `${planInWords(plan)}; ${purpose}` }}</span>
                  </span>
                </button>
                <button
                  v-if="ownId !== undefined"
                  type="button"
                  class="link"
                  :aria-label="`Remove ${plan.name}`"
                  @click="sizes.forget(ownId)"
                >
                  Remove
                </button>
              </li>
            </ul>
          </section>
          <p v-if="!groups.length">No size matches; type your own measures on the right.</p>
        </div>
      </div>
      <OwnSizeForm :both-sides="withoutPhoto" @choose="choose" />
    </div>
  </AppDialog>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 250px;
  gap: 22px;
}

.list {
  height: 420px;
  max-height: 56vh;
  margin-top: 8px;
  overflow: auto;
}

h3 {
  margin: 10px 0 2px;
  color: var(--ink-soft);
  font: 500 12px var(--text);
}

li {
  display: flex;
  align-items: center;
}

.offer {
  display: grid;
  flex: 1;
  grid-template-columns: 34px 1fr;
  gap: 8px;
  align-items: center;
  min-width: 0;
  padding: 4px 6px;
  border: 0;
  border-radius: 4px;
  background: none;
  text-align: left;
}

.offer:hover {
  background: var(--paper-deep);
}

.picture {
  display: grid;
  place-items: center;
}

i {
  border: 1.5px solid var(--ink-soft);
}

b {
  display: block;
  font-weight: 600;
}

span > span {
  color: var(--ink-soft);
  font-size: 12px;
}
</style>
