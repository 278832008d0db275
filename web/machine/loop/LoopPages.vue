<script setup lang="ts">
/** What else there is of a saved loop. */
defineProps<{ id: string; dirty: boolean }>();
</script>

<template>
  <p class="row">
    <router-link :to="`/loops/${id}/profile?show=drain`">What drains</router-link>
    <router-link :to="`/loops/${id}/profile?show=fill`">How it fills</router-link>
    <router-link :to="`/loops/${id}/profile?show=air`">Where air stays, flow and pressure</router-link>
    <router-link :to="`/loops/${id}/parts`">Parts and cuts to print</router-link>
    <span v-if="dirty" class="quiet">as last saved</span>
  </p>
</template>
