<script setup lang="ts">
import { computed, onScopeDispose, ref, watch } from 'vue';
import {
  PRINTED_UNIT_NAMES,
  SAYINGS,
  printedScale,
  proposePattern,
  readLine,
  type LineWord,
  type NoPattern,
} from '@kevro/core';
import { KINDS, OUTPUTS, PARITIES, SPEEDS, type FoundPort, type InstrumentKind } from '@kevro/contract';
import { Refused, api } from '../api/client';
import ChoiceRow from '../ui/ChoiceRow.vue';
import MoreFields from '../ui/MoreFields.vue';
import NumberField from '../forms/NumberField.vue';
import { numberOf } from '../ui/typed';
import { SAYING_WORDS, readWords, type PortDraft } from './port-draft';

// What a fitter comes here to do: say where the device is plugged in; put something known on it; see that Kevro reads it right.
const props = defineProps<{
  kind: InstrumentKind;
  /** The instrument that is changed: its own port is no other's. */
  own: string;
  said: (path: string) => string | undefined;
}>();
const draft = defineModel<PortDraft>({ required: true });

const ports = ref<FoundPort[]>([]);
const portFailure = ref('');
async function listPorts(): Promise<void> {
  try {
    ports.value = await api('ports');
    portFailure.value = '';
  } catch (error) {
    portFailure.value = error instanceof Error ? error.message : String(error);
  }
}
void listPorts();
const portItems = computed(() =>
  ports.value.map(({ path, says, instrument }) => ({
    value: path,
    title: path,
    subtitle: [says, instrument && instrument !== props.own ? `used by ${instrument}` : '']
      .filter(Boolean)
      .join(' · '),
  })),
);
function choosePort(path: string | null): void {
  const found = ports.value.find((one) => one.path === path);
  Object.assign(draft.value, { path: path?.trim() ?? '', usb: found?.usb ?? null });
}

const OUTPUT_TITLES: Record<(typeof OUTPUTS)[number], string> = {
  continuous: 'all the time',
  key: 'on its print key',
  request: 'when asked',
};
const outputs = OUTPUTS.map((value) => ({ value, title: OUTPUT_TITLES[value] }));
const kind = computed(() => KINDS[props.kind]);
const known = computed(() => numberOf(draft.value.known));

/** The last lines, while the form is open. An answer for other settings is dropped. */
const lines = ref<string[]>([]);
const trouble = ref('');
let stopped = false;
onScopeDispose(() => {
  stopped = true;
});
const settings = computed(() => {
  const { path, usb, speed, bits, parity, stopBits, output, ask } = draft.value;
  return { path, usb, speed, bits, parity, stopBits, output, ask: output === 'request' ? ask : '' };
});
async function hear(): Promise<void> {
  const asked = settings.value;
  if (asked.path !== '') {
    try {
      const heard = await api('hearPort', { body: asked });
      if (settings.value !== asked) return;
      lines.value = heard.lines;
      trouble.value = heard.trouble;
      draft.value.ends = heard.ends;
    } catch (error) {
      if (settings.value !== asked) return;
      trouble.value = error instanceof Refused ? (error.errors[0]?.message ?? error.message) : String(error);
    }
  }
}
const HEAR_EVERY_MS = 600;
async function keepHearing(): Promise<void> {
  while (!stopped) {
    await hear();
    await new Promise((next) => setTimeout(next, HEAR_EVERY_MS));
  }
}
void keepHearing();
watch(settings, () => {
  lines.value = [];
  trouble.value = '';
});

const proposed = computed(() =>
  known.value !== undefined && known.value > 0
    ? proposePattern(lines.value, kind.value.measure, known.value)
    : undefined,
);
// What was found is of what was said: another port, kind or weight asks anew.
watch(
  () => [props.kind, draft.value.path, known.value],
  () => {
    if (known.value !== undefined) draft.value.pattern = null;
  },
);
// Found once, it stays while something else is put on, so that it can be seen to read that too.
watch(proposed, (found) => {
  if (!draft.value.pattern && found && 'pattern' in found) draft.value.pattern = found.pattern;
});
const NONE_WORDS: Record<NoPattern, string> = {
  'no-lines': 'Nothing came yet.',
  'no-numbers': 'No number in these lines. Look at the speed, the bits and the parity.',
  'not-the-known':
    'None of these numbers is what you said is on it. Check the zero, the unit and the number.',
};
/** What to do where nothing comes. */
const COMES_WORDS: Record<(typeof OUTPUTS)[number], string> = {
  continuous: 'Is it switched on, and set to send all the time?',
  key: 'Press its print key.',
  request: 'Is it switched on, and is this what asks it?',
};
const none = computed(() => {
  if (draft.value.path === '' || draft.value.pattern) return '';
  if (lines.value.length === 0)
    return trouble.value ? '' : `${NONE_WORDS['no-lines']} ${COMES_WORDS[draft.value.output]}`;
  if (!proposed.value) return 'Type what is on it: then Kevro finds the number.';
  return 'why' in proposed.value ? NONE_WORDS[proposed.value.why] : '';
});

const show = (value: number): string => `${value.toFixed(props.kind === 'board' ? 2 : 1)} ${kind.value.unit}`;
const read = computed(() =>
  lines.value.map((line) => ({
    line,
    says: draft.value.pattern ? readWords(readLine(draft.value.pattern, kind.value.measure, line), show) : '',
  })),
);
const meanings = computed(() => [
  ...SAYINGS.map((value) => ({ value, title: SAYING_WORDS[value] })),
  ...PRINTED_UNIT_NAMES.filter((unit) => printedScale(kind.value.measure, unit) !== undefined).map(
    (value) => ({
      value,
      title: `unit: ${value}`,
    }),
  ),
]);
const mean = (word: LineWord, says: LineWord['says']): void => {
  word.says = says;
};
</script>

<template>
  <div class="port">
    <div class="two">
      <v-combobox
        :model-value="draft.path"
        :items="portItems"
        item-props
        :return-object="false"
        label="Port"
        :hint="ports.length === 0 ? 'None found. Plug the device in, or type the port.' : undefined"
        persistent-hint
        :error-messages="[said('link.path') ?? portFailure].filter(Boolean)"
        @update:model-value="choosePort"
        @update:menu="(open: boolean) => open && listPorts()"
      />
      <v-select v-model="draft.speed" :items="[...SPEEDS]" label="Speed, baud" />
    </div>
    <span class="small soft">It sends</span>
    <ChoiceRow v-model="draft.output" label="It sends" :choices="outputs" />
    <v-text-field
      v-if="draft.output === 'request'"
      v-model="draft.ask"
      label="Send this to ask"
      hint="As its manual has it. \r is a carriage return, \n a line feed."
      persistent-hint
      :error-messages="[said('link.ask') ?? ''].filter(Boolean)"
    />
    <MoreFields
      title="Bits and parity"
      :open="draft.bits !== 8 || draft.parity !== 'none' || draft.stopBits !== 1"
    >
      <div class="three">
        <v-select v-model="draft.bits" :items="[7, 8]" label="Data bits" />
        <v-select v-model="draft.parity" :items="[...PARITIES]" label="Parity" />
        <v-select v-model="draft.stopBits" :items="[1, 2]" label="Stop bits" />
      </div>
    </MoreFields>
    <NumberField
      v-model="draft.known"
      :label="
        draft.pattern && draft.known === null
          ? 'Now on it, to set it up again'
          : 'Put something known on it. It weighs'
      "
      :measure="kind.measure"
      :unit="kind.unit"
    />
    <section class="heard" aria-label="What it sends" aria-live="off">
      <p v-if="trouble" class="miss small mb-1" role="status">{{ trouble }}</p>
      <p v-if="none" class="soft small mb-1" role="status">{{ none }}</p>
      <table v-if="read.length > 0" class="plain">
        <thead>
          <tr>
            <th>It sends</th>
            <th>Kevro reads</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(one, at) in read" :key="at">
            <td class="line">{{ one.line }}</td>
            <td>{{ one.says || '—' }}</td>
          </tr>
        </tbody>
      </table>
      <p v-if="said('link')" class="miss small mb-0" role="alert">{{ said('link') }}</p>
    </section>
    <MoreFields v-if="draft.pattern && draft.pattern.words.length > 0" title="What its words say">
      <div class="two">
        <v-select
          v-for="word in draft.pattern.words"
          :key="`${word.where} ${word.word}`"
          :model-value="word.says"
          :items="meanings"
          :label="`${word.word}, ${word.where} the number`"
          @update:model-value="mean(word, $event)"
        />
      </div>
    </MoreFields>
  </div>
</template>

<style scoped>
.port {
  display: flex;
  flex-direction: column;
  gap: 12px;
}
.heard {
  border-left: 3px solid rgb(var(--v-theme-line));
  padding-left: 12px;
  min-height: 40px;
}
.line {
  white-space: pre-wrap;
  overflow-wrap: anywhere;
}
table {
  width: 100%;
}
.heard td {
  padding-top: 2px;
  padding-bottom: 2px;
}
</style>
