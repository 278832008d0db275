<template>
  <main class="page stack">
    <h1>Nothing stands here</h1>
    <p>This address belongs to no machine, loop or run of your workshop. It may have been mistyped, or it is another workshop's.</p>
    <p><router-link to="/systems">All machines</router-link></p>
  </main>
</template>
