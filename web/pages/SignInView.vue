<script setup lang="ts">
import { useRoute, useRouter } from 'vue-router';
import ColumnDrawing from '../base/shell/ColumnDrawing.vue';
import SignInForm from '../workshop/people/SignInForm.vue';
import { nextPath } from '../workshop/people/nextPath.js';
import { useSession } from '../workshop/people/sessionStore.js';

const route = useRoute();
const router = useRouter();
const session = useSession();
const next = (): string => nextPath(route.query.next);

/** Whoever was given a password is asked for an own one first. */
const enter = (): unknown => router.replace(session.account?.firstPassword ? { path: '/own-password', query: { next: next() } } : next());
</script>

<template>
  <main class="door">
    <ColumnDrawing class="door-drawing" />
    <section class="door-form">
      <h1>Lavacrum</h1>
      <p class="quiet mb-6">Fill it, test it, bleed it, and know when it is due.</p>
      <SignInForm @done="enter" />
    </section>
  </main>
</template>

<style scoped src="../workshop/people/door.css"></style>
