<script setup lang="ts">
import { ROLES } from '@core/workshop/people/roles.js';
import { ref } from 'vue';
import { useTheme } from 'vuetify';
import { switchLook } from '../../base/look/vuetify.js';
import { newerVersion } from '../../base/shell/newerVersion.js';
import { useSession } from '../../workshop/people/sessionStore.js';

/** Who is signed in, the look, and what is needed seldom. It comes with the first press of its button, and is open then. */
defineProps<{ activator: HTMLElement | undefined }>();
defineEmits<{ sums: []; keys: []; signOut: [] }>();
const session = useSession();
const theme = useTheme();
const open = ref(true);
</script>

<template>
  <v-menu v-model="open" :activator="activator" location="top end">
    <v-list min-width="240">
      <v-list-item
        :title="session.account?.personName"
        :subtitle="`${ROLES[session.account?.role ?? 'technician']}, ${session.account?.workshopName}`"
      />
      <v-divider />
      <v-list-item
        v-if="newerVersion"
        title="Load the newer version"
        subtitle="it is ready; nothing that waits here is lost"
        @click="newerVersion()"
      />
      <v-list-item :title="theme.global.name.value === 'day' ? 'Dark look' : 'Light look'" @click="switchLook" />
      <v-list-item title="Search everything" subtitle="press f" to="/search" />
      <v-list-item title="Messages to owners" to="/messages" />
      <v-list-item title="Your account" to="/own-password" />
      <v-list-item title="Sums" @click="$emit('sums')" />
      <v-list-item title="Keys" @click="$emit('keys')" />
      <v-list-item title="Sign out" @click="$emit('signOut')" />
    </v-list>
  </v-menu>
</template>
