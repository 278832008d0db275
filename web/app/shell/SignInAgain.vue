<script setup lang="ts">
import SignInForm from '../../workshop/people/SignInForm.vue';
import DialogFocus from '../../base/look/DialogFocus.vue';
</script>

<template>
  <v-dialog :model-value="true" persistent max-width="440">
    <v-card class="pa-6">
      <DialogFocus />
      <h2>Your session ended</h2>
      <p class="quiet mt-2 mb-4">Sign in again; everything you typed is still on this page behind. Nothing was saved meanwhile.</p>
      <SignInForm />
    </v-card>
  </v-dialog>
</template>
