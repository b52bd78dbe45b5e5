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

const docket = computed(() => control.value?.closest('.docket'))
/** Beside the docket, so that its other controls stay in sight. */
const placement = computed(() => (docket.value ? 'right' : 'top'))
/** Where the control is, as wide as the docket if it is in it. Not the control itself, whose ARIA attributes the
 *  tooltip would change. */
const place = computed(() => control.value && { getBoundingClientRect: () => placeOf(control.value!) })

function placeOf(control: HTMLElement): DOMRect {
  const { x, y, width, height } = control.getBoundingClientRect()
  const column = docket.value?.getBoundingClientRect()
  return column ? new DOMRect(column.x, y, column.width, height) : new DOMRect(x, y, width, height)
}

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
