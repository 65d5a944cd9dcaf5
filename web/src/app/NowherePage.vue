<template>
  <div class="page">
    <h1>There is no page here</h1>
    <p class="soft my-3">The address may be mistyped, or what it named is gone.</p>
    <v-btn color="primary" :to="{ name: 'today' }">Go to Today</v-btn>
  </div>
</template>
