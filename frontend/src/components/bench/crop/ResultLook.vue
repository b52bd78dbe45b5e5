<script setup lang="ts">
// Shows the finished picture on the stage while the pointer or the focus is on what is inside:
// what that sets can't be seen on the photo that is being cropped.

import { onScopeDispose } from 'vue'

import { useStage } from '../../../stores/stage'

const stage = useStage()

function look(now: boolean): void {
  stage.looksAtResult = now
}

onScopeDispose(() => look(false))
</script>

<template>
  <div
    @pointerenter="look(true)"
    @pointerleave="look(false)"
    @focusin="look(true)"
    @focusout="look(false)"
  >
    <slot></slot>
  </div>
</template>
