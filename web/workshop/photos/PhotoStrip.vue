<script setup lang="ts">
import { useDates } from '../../base/units/dates.js';

/** Pictures side by side, as before and after are compared. */
defineProps<{ photos: readonly { id: string; caption: string; at: string }[] }>();
const dates = useDates();
</script>

<template>
  <ul v-if="photos.length" class="plain-list strip" aria-label="Photographs">
    <li v-for="photo in photos" :key="photo.id">
      <a :href="`/api/photos/${photo.id}`" target="_blank"
        ><img :src="`/api/photos/${photo.id}`" :alt="photo.caption || 'Photograph of the machine'" loading="lazy"
      /></a>
      <span class="quiet">{{ photo.caption }} {{ dates.day(photo.at) }}</span>
    </li>
  </ul>
</template>

<style scoped>
.strip {
  display: flex;
  gap: 12px;
  overflow-x: auto;
}
li {
  display: grid;
  gap: 4px;
  flex: 0 0 170px;
}
img {
  width: 170px;
  height: 120px;
  object-fit: cover;
  background: var(--well);
}
</style>
