<template>
  <div class="page">
    <h1>Page not found</h1>
    <p class="soft my-3">Check the address.</p>
    <v-btn color="primary" :to="{ name: 'today' }">Go to Today</v-btn>
  </div>
</template>
