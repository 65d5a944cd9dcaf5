<script setup lang="ts">
const open = defineModel<boolean>({ required: true });
const KEYS: [string[], string][] = [
  [['1', '…', '5'], 'go to a station of the open fitting'],
  [['m'], 'take a reading'],
  [['↑', '↓'], 'Measure: which quantity is taken'],
  [['/'], 'Measure: type all readings in one line'],
  [['p'], 'Measure: put the frame on the instrument (stand-ins only)'],
  [['space'], 'Measure: start and stop the stopwatch'],
  [['u'], 'switch units'],
  [['←', '→'], 'Plan: move the chosen weight 5 mm; with Shift 1 mm'],
  [['+', '−'], 'Plan: one piece more or less'],
  [['z', 'Shift z'], 'Plan: undo, redo'],
  [['↑', '↓', 'Enter'], 'Compare: go along the setups, set one beside'],
  [['?'], 'this list'],
];
</script>

<template>
  <v-dialog v-model="open" max-width="520">
    <v-card class="pa-5">
      <h2 class="text-h6 mb-3">Keys</h2>
      <table class="plain">
        <tbody>
          <tr v-for="[keys, what] in KEYS" :key="what">
            <td class="keys">
              <kbd v-for="key in keys" :key="key">{{ key }}</kbd>
            </td>
            <td>{{ what }}</td>
          </tr>
        </tbody>
      </table>
      <div class="d-flex mt-4">
        <v-spacer /><v-btn color="primary" autofocus @click="open = false">Close</v-btn>
      </div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.keys {
  white-space: nowrap;
  width: 1%;
}
.keys kbd + kbd {
  margin-left: 5px;
}
</style>
