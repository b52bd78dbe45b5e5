<script setup lang="ts">
import type { BadgeForm } from '../../../api/types'
import { GLYPHS } from './forms'

defineProps<{ form: BadgeForm }>()
</script>

<template>
  <svg width="20" height="20" viewBox="0 0 20 20" aria-hidden="true">
    <path :d="GLYPHS[form]" fill="currentColor" fill-rule="evenodd" />
  </svg>
</template>
