<script setup lang="ts">
// Make a mark: words, icon, rule and frame, from a layout or freely, seen dark and light.

import { computed, reactive, ref, watch } from 'vue'

import { post, put } from '../../../api/client'
import type { MarkDesign, MarkKept } from '../../../api/types'
import { isEmptyMark } from '../../../composables/markPictures'
import { useNotices } from '../../../stores/notices'
import AppDialog from '../../shared/AppDialog.vue'
import ChoiceChips from '../../shared/ChoiceChips.vue'
import FamilySelect from '../../shared/FamilySelect.vue'
import FoldSection from '../../shared/FoldSection.vue'
import TickBox from '../../shared/TickBox.vue'
import IconPicker from '../pieces/IconPicker.vue'
import MarkColourFields from './MarkColourFields.vue'
import MarkLayouts from './MarkLayouts.vue'
import MarkPicture from './MarkPicture.vue'

const props = defineProps<{
  /** The mark that is changed; null makes a new one. */
  kept: MarkKept | null
}>()
const emit = defineEmits<{ kept: [mark: MarkKept] }>()
const open = defineModel<boolean>({ required: true })

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
  colours: null,
}
const LAYOUTS: { key: MarkDesign['layout']; label: string }[] = [
  { key: 'stacked', label: 'stacked' },
  { key: 'beside', label: 'side by side' },
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
watch(
  open,
  (now) => {
    if (!now) return
    name.value = props.kept?.mark.name ?? ''
    Object.assign(design, EMPTY, props.kept?.mark.design)
  },
  { immediate: true },
)

const isEmpty = computed(() => isEmptyMark(design))

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
  <AppDialog v-model="open" :title="kept ? 'Change the mark' : 'Make a mark'" :width="820">
    <div class="words">
      <label><span class="field-label">Words</span><input v-model="design.words" class="text-field" maxlength="60" placeholder="Pebblewick" /></label>
      <label><span class="field-label">Tagline</span><input v-model="design.line" class="text-field" maxlength="60" placeholder="pottery" /></label>
    </div>
    <p class="field-label">Start from a layout</p>
    <MarkLayouts :design="design" @choose="(chosen) => Object.assign(design, isEmpty ? { ...chosen, words: '', line: '' } : chosen)" />
    <div class="board">
      <div class="shown">
        <MarkPicture :design="design" shade="dark" alt="The mark, dark" />
        <MarkPicture :design="design" shade="light" alt="The mark, light" />
        <p v-if="isEmpty">Type your words or choose an icon, and the mark shows here, dark and light.</p>
      </div>
      <div class="controls">
        <FoldSection title="Lettering" :summary="design.case === 'typed' ? 'as typed' : design.case" starts-open>
          <FamilySelect v-model:family="design.family" v-model:weight="design.weight" :words="design.words" />
          <ChoiceChips class="spaced" label="Case" :choices="CASES" :chosen="design.case" @choose="(key) => (design.case = key)" />
        </FoldSection>
        <FoldSection title="Icon" :summary="design.icon?.replaceAll('-', ' ') ?? 'none'">
          <IconPicker :chosen="design.icon ?? null" @choose="(icon) => (design.icon = icon)" />
        </FoldSection>
        <FoldSection title="Arrangement and frame" :summary="design.frame === 'none' ? 'no frame' : design.frame">
          <ChoiceChips label="Arrangement" :choices="LAYOUTS" :chosen="design.layout" @choose="(key) => (design.layout = key)" />
          <p class="field-label">Frame</p>
          <ChoiceChips label="Frame" :choices="FRAMES" :chosen="design.frame" @choose="(key) => (design.frame = key)" />
          <TickBox v-model:checked="design.rule" label="Rule under the words" :disabled="design.layout === 'round'" />
        </FoldSection>
        <FoldSection title="Colours" :summary="design.colours ? 'its own' : 'one, chosen where it is used'">
          <MarkColourFields v-model="design.colours" />
        </FoldSection>
      </div>
    </div>
    <template #footer>
      <div class="foot">
        <label><span class="visually-hidden">The mark’s name</span><input v-model="name" class="text-field" maxlength="120" placeholder="Name of the mark" /></label>
        <button type="button" class="action" @click="open = false">Cancel</button>
        <button type="button" class="action key" :disabled="isEmpty" @click="keep">Save the mark</button>
      </div>
    </template>
  </AppDialog>
</template>

<style scoped>
.words {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
}

.board {
  display: grid;
  grid-template-columns: 1fr 330px;
  gap: 20px;
  margin-top: 14px;
}

.shown {
  display: grid;
  grid-auto-rows: 170px;
  gap: 10px;
  align-content: start;
}

.shown > :deep(.mark-picture) {
  padding: 16px;
  border: 1px solid var(--edge);
}

.shown p {
  color: var(--ink-soft);
  font-size: 12px;
}

.controls {
  padding: 0 12px;
}

.spaced {
  margin-top: 7px;
}

@media (max-width: 820px) {
  .board,
  .words {
    grid-template-columns: 1fr;
  }
}

.foot {
  display: flex;
  gap: 8px;
  justify-content: flex-end;
}
</style>
