<script setup lang="ts">
// Make a mark: words, icon, rule and frame on a small board, seen dark and light.

import { useObjectUrl, watchDebounced } from '@vueuse/core'
import { reactive, ref, shallowRef, watch } from 'vue'

import { picture, post, put } from '../../../api/client'
import type { MarkDesign, MarkKept } from '../../../api/types'
import { useNotices } from '../../../stores/notices'
import AppDialog from '../../shared/AppDialog.vue'
import ChoiceChips from '../../shared/ChoiceChips.vue'
import IconPicker from '../pieces/IconPicker.vue'
import FamilySelect from '../../shared/FamilySelect.vue'

const props = defineProps<{
  /** The mark that is changed; null makes a new one. */
  kept: MarkKept | null
}>()
const emit = defineEmits<{ kept: [mark: MarkKept] }>()
const open = defineModel<boolean>({ required: true })

const PAUSE_MS = 120
const EMPTY: MarkDesign = {
  words: '',
  line: '',
  icon: null,
  layout: 'stacked',
  frame: 'none',
  rule: false,
  family: 'figtree',
  weight: 700,
  case: 'typed',
}
const LAYOUTS: { key: MarkDesign['layout']; label: string }[] = [
  { key: 'stacked', label: 'icon over words' },
  { key: 'beside', label: 'icon beside words' },
  { key: 'round', label: 'round' },
]
const FRAMES: { key: MarkDesign['frame']; label: string }[] = [
  { key: 'none', label: 'none' },
  { key: 'circle', label: 'circle' },
  { key: 'oval', label: 'oval' },
  { key: 'label', label: 'label' },
  { key: 'box', label: 'box' },
]
const CASES: { key: MarkDesign['case']; label: string }[] = [
  { key: 'typed', label: 'Aa' },
  { key: 'capitals', label: 'AA' },
  { key: 'lower', label: 'aa' },
]

const notices = useNotices()
const name = ref('')
const design = reactive<MarkDesign>({ ...EMPTY })
const dark = shallowRef<Blob>()
const light = shallowRef<Blob>()
const darkUrl = useObjectUrl(dark)
const lightUrl = useObjectUrl(light)

watch(
  open,
  (now) => {
    if (!now) return
    name.value = props.kept?.mark.name ?? ''
    Object.assign(design, EMPTY, props.kept?.mark.design)
  },
  { immediate: true },
)

const isEmpty = () => !(design.words.trim() || design.line.trim() || design.icon)

watchDebounced(
  design,
  async () => {
    if (isEmpty()) {
      dark.value = light.value = undefined
      return
    }
    try {
      const [one, other] = await Promise.all([
        picture('/marks/drawn', { design, shade: 'dark' }),
        picture('/marks/drawn', { design, shade: 'light' }),
      ])
      dark.value = one ?? undefined
      light.value = other ?? undefined
    } catch (error) {
      notices.tell(error)
    }
  },
  { debounce: PAUSE_MS, immediate: true },
)

async function keep(): Promise<void> {
  const body = { name: name.value.trim() || design.words.trim() || 'Mark', design }
  try {
    const id = props.kept?.mark.id
    const mark = id ? await put<MarkKept>(`/marks/${id}`, body) : await post<MarkKept>('/marks', body)
    open.value = false
    emit('kept', mark)
  } catch (error) {
    notices.tell(error)
  }
}
</script>

<template>
  <AppDialog v-model="open" :title="kept ? 'Change the mark' : 'Make a mark'" :width="760">
    <div class="board">
      <div class="shown">
        <div class="paper"><img v-if="darkUrl" :src="darkUrl" alt="The mark, dark" /></div>
        <div class="paper night"><img v-if="lightUrl" :src="lightUrl" alt="The mark, light" /></div>
        <p v-if="isEmpty()">Write words or choose an icon; the mark shows here, dark and light.</p>
      </div>
      <div class="controls">
        <label><span class="field-label">Words</span><input v-model="design.words" class="text-field" maxlength="60" placeholder="Pebblewick" /></label>
        <label><span class="field-label">Smaller line</span><input v-model="design.line" class="text-field" maxlength="60" placeholder="pottery" /></label>
        <FamilySelect v-model:family="design.family" v-model:weight="design.weight" />
        <ChoiceChips label="Case" :choices="CASES" :chosen="design.case" @choose="(key) => (design.case = key)" />
        <p class="field-label">Arranged</p>
        <ChoiceChips label="Arranged" :choices="LAYOUTS" :chosen="design.layout" @choose="(key) => (design.layout = key)" />
        <p class="field-label">Frame</p>
        <ChoiceChips label="Frame" :choices="FRAMES" :chosen="design.frame" @choose="(key) => (design.frame = key)" />
        <label class="tick"><input v-model="design.rule" type="checkbox" :disabled="design.layout === 'round'" /> rule under the words</label>
        <p class="field-label">Icon</p>
        <IconPicker :chosen="design.icon ?? null" @choose="(icon) => (design.icon = icon)" />
      </div>
    </div>
    <template #footer>
      <div class="foot">
        <label><span class="visually-hidden">The mark’s name</span><input v-model="name" class="text-field" maxlength="120" placeholder="its name on the shelf" /></label>
        <button type="button" class="action" @click="open = false">Cancel</button>
        <button type="button" class="action key" :disabled="isEmpty()" @click="keep">Keep the mark</button>
      </div>
    </template>
  </AppDialog>
</template>

<style scoped>
.board {
  display: grid;
  grid-template-columns: 1fr 320px;
  gap: 20px;
}

.shown {
  display: grid;
  grid-template-rows: 1fr 1fr;
  gap: 10px;
}

.paper {
  display: grid;
  place-items: center;
  min-height: 190px;
  padding: 18px;
  border: 1px solid var(--edge);
  border-radius: 4px;
  background: #ffffff;
}

.paper.night {
  background: #3b4145;
}

.paper img {
  max-width: 100%;
  max-height: 165px;
  object-fit: contain;
}

.shown p {
  color: var(--ink-soft);
  font-size: 12px;
}

.controls {
  display: flex;
  flex-direction: column;
  gap: 5px;
}

.foot {
  display: flex;
  gap: 8px;
  justify-content: flex-end;
}
</style>
