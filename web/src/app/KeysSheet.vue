<script setup lang="ts">
import Sheet from '../ui/Sheet.vue';
import { useTypingDevices } from '../ui/bursts';
import { useShortcuts } from '../ui/keys';

/** The keys that work, and the switch for those that are a single character. */
const open = defineModel<boolean>({ required: true });
const emit = defineEmits<{ marks: [] }>();
const shortcuts = useShortcuts();
const typingDevices = useTypingDevices();
const KEYS: [string[], string][] = [
  [['1', '…', '7'], 'go to a station of the open fitting; on Today: open one of the first nine'],
  [['n'], 'Today: open a fitting'],
  [['Ctrl k'], 'find anything: players, frames, fittings, setups, parts'],
  [['Ctrl Enter'], 'the main action of the page or the form, also while you type'],
  [['m'], 'take a reading'],
  [['↑', '↓'], 'Measure: which quantity is taken'],
  [['/'], 'Measure: type all readings in one line'],
  [['p'], 'Measure: put the frame on the instrument (simulated ones only)'],
  [['space'], 'Measure: start and stop the stopwatch'],
  [['u'], 'switch units'],
  [['←', '→'], 'Plan: move the chosen piece 5 mm; with Shift 1 mm'],
  [['+', '−'], 'Plan: one strip or dab more or less'],
  [['z', 'Ctrl z'], 'Plan: undo'],
  [['Shift z', 'Ctrl Shift z'], 'Plan: redo'],
  [['v'], 'Compare: lanes, plane, table'],
  [['↑', '↓', 'Enter'], 'Compare: go along the setups, set one beside'],
  [['↑', '↓', 'space'], 'Build: go along the steps, mark one as done'],
  [['n', 'a'], 'Play: note a session, take the next step'],
  [['?'], 'this list'],
];
</script>

<template>
  <Sheet v-model="open" title="Keys" :width="560">
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
    <v-switch v-model="shortcuts" label="Single-key shortcuts" class="mt-2" />
    <p class="soft small mb-0">
      Turn off if you dictate or rest things on the keyboard. Ctrl shortcuts still work.
    </p>
    <v-switch v-model="typingDevices" label="Scales and scanners that type" class="mt-2" />
    <p class="soft small mb-0">
      A number goes to what is being read, a frame’s tag opens the frame. Turn off if fast typing is taken for
      a device.
    </p>
    <div class="d-flex mt-4">
      <v-btn variant="outlined" @click="emit('marks')">What the marks mean</v-btn>
      <v-spacer /><v-btn v-first color="primary" @click="open = false">Close</v-btn>
    </div>
  </Sheet>
</template>

<style scoped>
.plain td {
  padding-block: 4px;
}
.keys {
  white-space: nowrap;
  width: 1%;
}
.keys kbd + kbd {
  margin-left: 5px;
}
</style>
