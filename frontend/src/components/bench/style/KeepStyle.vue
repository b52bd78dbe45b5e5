<script setup lang="ts">
// Keeping a house style: which parts of this finish belong to it.

import { computed, onMounted, ref, shallowRef } from 'vue'

import type { HouseStyle, KeptStyle, PartKey, PartOffered, StyleUse } from '../../../api/types'
import { useBench } from '../../../stores/bench'
import { useNotices } from '../../../stores/notices'
import { useStyles } from '../../../stores/styles'
import ChoiceChips from '../../shared/ChoiceChips.vue'

const props = defineProps<{
  /** The style that the finish is in, which may get a new version. */
  used: StyleUse | null
  canGoBack: boolean
}>()
const emit = defineEmits<{ kept: [style: HouseStyle]; back: [] }>()

const bench = useBench()
const styles = useStyles()
const notices = useNotices()
const parts = shallowRef<PartOffered[]>([])
const ticked = ref<PartKey[]>([])
const suggestLight = ref(false)
const name = ref('')
const place = ref<'new' | 'version'>('new')

const known = computed(() => styles.list.find(({ style }) => style.id === props.used?.id)?.style ?? null)
/** The version that the style is to follow, if any. */
const before = computed(() => (place.value === 'version' ? known.value : null))
const canSave = computed(() => !!name.value.trim() && (ticked.value.length > 0 || suggestLight.value))

onMounted(async () => {
  choose(known.value ? 'version' : 'new')
  try {
    parts.value = (await bench.ask<{ parts: PartOffered[] }>('/styles/parts')).parts
    tick()
  } catch (error) {
    notices.tell(error)
  }
})

function choose(key: 'new' | 'version'): void {
  place.value = key
  name.value = before.value?.name ?? ''
  suggestLight.value = before.value?.suggest_light ?? false
  tick()
}

/** A new version has the parts of the one before; a new style begins with all that is set. */
function tick(): void {
  const given = before.value?.parts
  ticked.value = parts.value.filter(({ key, is_set }) => (given ? given[key] : is_set)).map(({ key }) => key)
}

async function keep(): Promise<void> {
  try {
    const { style } = await bench.ask<KeptStyle>('/styles', {
      name: name.value.trim(),
      parts: ticked.value,
      suggest_light: suggestLight.value,
      id: before.value?.id ?? null,
    })
    emit('kept', style)
  } catch (error) {
    notices.tell(error)
  }
}
</script>

<template>
  <form @submit.prevent="keep">
    <p class="soft">
      A house style is what your pictures have in common. Tick what belongs to it; the next photo can start with it,
      and finishes that have it are renewed together.
    </p>
    <ChoiceChips
      v-if="known"
      label="Save as"
      :choices="[
        { key: 'version', label: `a new version of “${known.name}”` },
        { key: 'new', label: 'a new style' },
      ]"
      :chosen="place"
      @choose="choose"
    />
    <label class="name">
      <span class="field-label">Name of the style</span>
      <input v-model="name" class="text-field" maxlength="120" placeholder="Shop, spring" />
    </label>
    <ul>
      <li v-for="part in parts" :key="part.key">
        <label class="tick">
          <input v-model="ticked" type="checkbox" :value="part.key" />
          <span><b>{{ part.title }}</b> <small>{{ part.summary }}</small></span>
        </label>
      </li>
      <li>
        <label class="tick">
          <input v-model="suggestLight" type="checkbox" />
          <span><b>Light and colour</b> <small>as suggested for each photo</small></span>
        </label>
      </li>
    </ul>
    <div class="foot">
      <button v-if="canGoBack" type="button" class="action" @click="emit('back')">Back</button>
      <button type="submit" class="action key" :disabled="!canSave">Save the style</button>
    </div>
  </form>
</template>

<style scoped>
.soft {
  margin-bottom: 10px;
  color: var(--ink-soft);
}

.name {
  display: block;
  max-width: 320px;
  margin: 10px 0;
}

ul {
  columns: 2;
  column-gap: 24px;
}

li {
  padding: 4px 0;
  break-inside: avoid;
}

small {
  display: block;
  color: var(--ink-soft);
  font-size: 12px;
  overflow-wrap: anywhere;
}

.foot {
  margin-top: 14px;
  text-align: right;
}

.foot .action {
  margin-left: 8px;
}
</style>
