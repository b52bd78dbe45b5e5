<script setup lang="ts">
// Whether something is a favourite.

defineProps<{ name: string; on: boolean }>()
defineEmits<{ change: [on: boolean] }>()
</script>

<template>
  <button
    type="button"
    class="star"
    :class="{ on }"
    :aria-pressed="on"
    :aria-label="`Favourite: ${name}`"
    @click.stop="$emit('change', !on)"
  >
    <svg viewBox="0 0 20 20" width="14" height="14" aria-hidden="true">
      <path d="M10 1.8l2.5 5.3 5.7.7-4.2 4 1.1 5.8L10 14.8l-5.1 2.8L6 11.8l-4.2-4 5.7-.7z" />
    </svg>
  </button>
</template>

<style scoped>
.star {
  display: grid;
  place-items: center;
  width: 24px;
  height: 24px;
  padding: 0;
  border: 0;
  border-radius: 50%;
  background: rgb(255 253 248 / 88%);
}

path {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.6;
  stroke-linejoin: round;
}

.on path {
  fill: var(--ink);
}
</style>
