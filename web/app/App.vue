<script setup lang="ts">
import { computed } from 'vue';
import { useRoute } from 'vue-router';
import { useSession } from '../workshop/people/sessionStore.js';
import BenchEdge from './shell/BenchEdge.vue';
import NoticeLine from '../base/shell/NoticeLine.vue';
import SignInAgain from './shell/SignInAgain.vue';

const session = useSession();
const route = useRoute();
const framed = computed(() => session.account !== null && !route.meta.open && !route.meta.anybody);
</script>

<template>
  <v-app>
    <a class="skip" href="#main">Skip to the page</a>
    <div id="main" tabindex="-1">
      <router-view v-slot="{ Component }">
        <component :is="Component" :key="route.path" />
      </router-view>
    </div>
    <BenchEdge v-if="framed" />
    <NoticeLine />
    <SignInAgain v-if="session.expired" />
  </v-app>
</template>

<style scoped>
.skip {
  position: absolute;
  left: -9999px;
}
.skip:focus {
  left: 12px;
  top: 12px;
  z-index: 3000;
  background: var(--slab);
  color: var(--on-slab);
  padding: 10px 16px;
}
#main:focus {
  outline: none;
}
</style>
