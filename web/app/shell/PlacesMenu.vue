<script setup lang="ts">
import { ref } from 'vue';

/** Where one goes, behind one button. It comes with the first press of it, and is open then. */
defineProps<{ activator: HTMLElement | undefined; places: readonly { readonly to: string; readonly label: string }[] }>();
const open = ref(true);
</script>

<template>
  <v-menu v-model="open" :activator="activator" location="top start">
    <v-list>
      <v-list-item v-for="place in places" :key="place.to" :title="place.label" :to="place.to" />
    </v-list>
  </v-menu>
</template>
