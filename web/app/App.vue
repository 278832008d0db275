<script setup lang="ts">
import { computed, defineAsyncComponent, ref, watch } from 'vue';
import { useRoute } from 'vue-router';
import { useSession } from '../workshop/people/sessionStore.js';
import BenchEdge from './shell/BenchEdge.vue';
import { useNotices } from '../base/shell/notices.js';

/** what is seldom seen comes when it is */
const NoticeLine = defineAsyncComponent(() => import('../base/shell/NoticeLine.vue'));
const SignInAgain = defineAsyncComponent(() => import('./shell/SignInAgain.vue'));

const session = useSession();
const notices = useNotices();
/** once something was said the line stays, for what is said next; a newer version may be told of before the first page stands */
const noticed = ref(notices.current !== null);
watch(
  () => notices.current,
  () => (noticed.value = true),
);
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
    <NoticeLine v-if="noticed" />
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
