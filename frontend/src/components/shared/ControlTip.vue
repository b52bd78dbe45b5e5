<script setup lang="ts">
// One tooltip for all controls that are explained (see `vTip`): it goes where the pointer rests or
// the keyboard's focus is.

import { useEventListener } from '@vueuse/core'
import { ElTooltip } from 'element-plus'
import { computed, ref, shallowRef } from 'vue'

const REST_MS = 450

const control = shallowRef<HTMLElement>()
const visible = ref(false)
const text = ref('')
let resting: ReturnType<typeof setTimeout> | undefined

/** Where the control is. Not the control itself, whose ARIA attributes the tooltip would change. */
const place = computed(() => control.value && { getBoundingClientRect: () => control.value!.getBoundingClientRect() })
/** Beside the docket, so that its other controls stay in sight. */
const placement = computed(() => (control.value?.closest('.docket') ? 'right' : 'top'))

function aim(target: EventTarget | null): void {
  const found = target instanceof Element ? target.closest<HTMLElement>('[data-tip]') : null
  if (found && found === control.value) return
  hide()
  if (!found) return
  control.value = found
  resting = setTimeout(() => {
    text.value = found.dataset.tip ?? ''
    visible.value = found.isConnected && text.value !== ''
  }, REST_MS)
}

function hide(): void {
  clearTimeout(resting)
  visible.value = false
  control.value = undefined
}

useEventListener(document, 'pointerover', ({ target, pointerType, buttons }) => {
  if (pointerType === 'mouse' && !buttons) aim(target)
})
useEventListener(document, 'focusin', ({ target }) => {
  if ((target as Element).matches(':focus-visible')) aim(target)
})
useEventListener(document, ['pointerdown', 'keydown', 'wheel', 'focusout'], hide, { capture: true, passive: true })
</script>

<template>
  <!-- Screen readers have the same text as the control's description. -->
  <div class="control-tips" aria-hidden="true"></div>
  <ElTooltip
    v-if="control"
    append-to=".control-tips"
    :visible="visible"
    :content="text"
    :placement="placement"
    :virtual-ref="place"
    virtual-triggering
    :enterable="false"
    :show-arrow="false"
    effect="light"
    popper-class="control-tip"
  />
</template>

<style>
.control-tips {
  position: fixed;
  inset: 0;
  z-index: 4000;
  overflow: hidden;
  pointer-events: none;
}

.control-tip.el-popper {
  max-width: 250px;
  padding: 7px 10px;
  border-color: var(--ink);
  background: var(--ink);
  color: var(--cream);
  font-size: 12px;
  line-height: 1.4;
}
</style>
