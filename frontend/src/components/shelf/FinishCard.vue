<script setup lang="ts">
import { computed, nextTick, ref } from 'vue'

import type { FinishFace } from '../../api/types'
import { sayWhen } from '../../composables/dates'

const props = defineProps<{
  finish: FinishFace
  binned: boolean
  /** Whether others are chosen already. */
  choosing: boolean
}>()
const isChosen = defineModel<boolean>('chosen', { required: true })
const emit = defineEmits<{
  open: []
  goBack: []
  rename: [name: string]
  duplicate: []
  bin: []
  restore: []
  delete: []
}>()

const PLANK = 150
const WIDEST = 240

const faces = computed(() => {
  const all = props.finish.sizes.slice(0, 3)
  return all.map((size, index) => {
    const high = index === 0 ? PLANK : PLANK * 0.38
    const ratio = size.width / size.height
    const height = Math.max(24, Math.min(high, WIDEST / ratio))
    const width = Math.max(24, Math.min(WIDEST, height * ratio))
    const asked = Math.min(1024, Math.max(16, Math.ceil(height * window.devicePixelRatio)))
    const src =
      `/api/finishes/${props.finish.id}/picture?size_id=${size.id}` +
      `&height=${asked}&etag=${props.finish.etag}`
    return { id: size.id, width, height, src }
  })
})
const facts = computed(() => {
  const [first] = props.finish.sizes
  const count = props.finish.sizes.length
  const sizes = count === 1 ? `${first?.width} × ${first?.height}` : `${count} sizes`
  return `${sizes} · ${sayWhen(props.finish.changed_at)}`
})

const canOpen = computed(() => !props.finish.problem && !props.binned)
const naming = ref(false)
const field = ref<HTMLInputElement>()

/** A click anywhere on the card opens it, but on what does something else. */
function press(event: MouseEvent): void {
  if (canOpen.value && !(event.target as Element).closest('button, input, label')) emit('open')
}

async function startNaming(): Promise<void> {
  naming.value = true
  await nextTick()
  field.value!.select()
}

function endNaming(): void {
  if (!naming.value) return
  naming.value = false
  const name = field.value!.value.trim()
  if (name && name !== props.finish.name) emit('rename', name)
}
</script>

<template>
  <li class="card" :class="{ opens: canOpen }" @click="press">
    <label v-if="!binned" class="choose" :class="{ always: choosing }">
      <input v-model="isChosen" type="checkbox" :aria-label="`Choose ${finish.name}`" />
    </label>
    <p v-if="finish.problem" class="pictures problem">{{ finish.problem }}</p>
    <button
      v-else
      type="button"
      class="pictures"
      :aria-label="`${binned ? 'Restore' : 'Open'} ${finish.name}`"
      @click="binned ? $emit('restore') : $emit('open')"
    >
      <img
        v-for="face in faces"
        :key="face.id"
        :src="face.src"
        :style="{ width: `${face.width}px`, height: `${face.height}px` }"
        alt=""
        loading="lazy"
        draggable="false"
      />
    </button>
    <div class="words">
      <input
        v-if="naming"
        ref="field"
        class="text-field"
        :value="finish.name"
        maxlength="120"
        :aria-label="`New name of ${finish.name}`"
        @keydown.enter="endNaming"
        @keydown.escape="naming = false"
        @blur="endNaming"
      />
      <b v-else :title="finish.name">{{ finish.name }}</b>
      <span>{{ finish.problem ? 'can’t be shown' : facts }}</span>
      <div class="actions">
        <template v-if="binned">
          <button type="button" class="link" @click="$emit('restore')">Restore</button>
          <button type="button" class="link" @click="$emit('delete')">Delete…</button>
        </template>
        <template v-else>
          <button v-if="finish.problem && finish.can_undo" type="button" class="link" @click="$emit('goBack')">
            Undo its last change
          </button>
          <button v-if="!finish.problem" type="button" class="link" @click="startNaming">Rename</button>
          <button v-if="!finish.problem" type="button" class="link" @click="$emit('duplicate')">Duplicate</button>
          <button type="button" class="link" @click="$emit('bin')">Bin</button>
        </template>
      </div>
    </div>
  </li>
</template>

<style scoped src="./cards.css"></style>
