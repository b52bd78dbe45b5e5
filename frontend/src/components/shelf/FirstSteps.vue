<script setup lang="ts">
import { FIRST_STEPS, SAMPLE, useFirstSteps } from '../../composables/firstSteps'

const { start } = useFirstSteps()
</script>

<template>
  <section class="first">
    <h3>Your shelf is still empty</h3>
    <p>Drop a photo anywhere on this page, or try it with this one:</p>
    <div class="try">
      <img :src="SAMPLE" alt="Three stoneware mugs on a table" />
      <ul>
        <li v-for="{ key, title, text } in FIRST_STEPS" :key="key">
          <button type="button" class="action" @click="start(key)">{{ title }}</button>
          <span>{{ text }}</span>
        </li>
      </ul>
    </div>
    <p>From another computer? Drop its backup here, and the shelf is as it was there.</p>
  </section>
</template>

<style scoped>
.first {
  display: grid;
  gap: 8px;
  margin: 22px 0 40px;
}

h3 {
  font-size: 20px;
}

p,
li span {
  color: var(--ink-soft);
}

.try {
  display: flex;
  flex-wrap: wrap;
  gap: 24px;
  align-items: center;
  margin-top: 8px;
}

img {
  width: min(360px, 100%);
  border: 4px solid #ffffff;
  box-shadow: 0 1px 5px rgb(30 42 47 / 40%);
}

ul {
  display: grid;
  gap: 14px;
}

li {
  display: grid;
  gap: 4px;
  justify-items: start;
}
</style>
