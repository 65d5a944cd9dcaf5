<script setup lang="ts">
import { computed, reactive, ref, watch } from 'vue';
import {
  specsToShow,
  FIELD_UNITS,
  SETUP_FIELDS,
  SOURCE_KINDS,
  SPORTS,
  isStrung,
  sportData,
  usualDress,
  type SetupField,
} from '@kevro/core';
import AxisQuestion from '../forms/AxisQuestion.vue';
import ChoiceRow from '../ui/ChoiceRow.vue';
import DressForm from '../forms/DressForm.vue';
import MoreFields from '../ui/MoreFields.vue';
import Sheet from '../ui/Sheet.vue';
import { counted } from '../words/counted';
import { useTypedAxis } from '../forms/typed-axis';
import { SPORT_ITEMS } from '../words/players';
import { useUnits } from '../stores/units';
import { same } from '../ui/same';
import { SOURCE_NAMES, SPEC_NAMES } from '../words';
import { dressWords } from '../words/dress';
import { FIELD_NAMES } from './words';
import { useReading } from './reading';

// What a fitter comes here to do: say which list; see that its columns are understood; store it, mending or skipping what is wrong.
const emit = defineEmits<{ stored: [] }>();
const open = ref(false);
const units = useUnits();
const reading = useReading();
const { text, name, json, said, mapping, head, unclear, displaced } = reading;
const { preview, result, refusal, busy, progress, bad } = reading;
const from = ref<'file' | 'lines'>('file');
const FROM = [
  { value: 'file', title: 'A file' },
  { value: 'lines', title: 'Pasted lines' },
] as const;
const lines = ref('');
const done = ref('');
defineExpose({
  show: () => {
    done.value = '';
    open.value = true;
  },
});

const fields = [
  { value: null, title: 'leave it out' },
  ...SETUP_FIELDS.map((value) => ({ value: value as SetupField | null, title: FIELD_NAMES[value] })),
];
const kinds = SOURCE_KINDS.map((kind) => ({ value: kind, title: SOURCE_NAMES[kind] }));
const unitsOf = (header: string): string[] => {
  const field = mapping.value?.columns[header]?.field;
  return [...((field && FIELD_UNITS[field]) ?? [])];
};
/** The sport of the first row whose swing weight may be about another axis than the sport's own: about which is asked once a source. */
const asking = computed(() =>
  preview.value
    .flatMap(({ read }) => (read && 'setup' in read ? [read.setup] : []))
    .filter(({ specs }) => specs.swingWeight !== undefined)
    .map(({ shape }) => sportData(shape.sport))
    .find(({ quotedAxesCm }) => quotedAxesCm !== undefined),
);
/** A rating has a column where a row knows it. */
const keys = computed(() =>
  specsToShow(preview.value.map(({ read }) => (read && 'setup' in read ? read.setup.specs : undefined))),
);
const sport = computed(() => asking.value ?? sportData(said.value.assume.sport));
const typedAxis = useTypedAxis(
  () => sport.value,
  () => said.value.assume.source || name.value,
);
watch(
  () => (asking.value ? typedAxis.axisCm.value : undefined),
  (axisCm) => {
    if (axisCm !== said.value.assume.axisCm) reading.assume({ axisCm });
  },
);
/** Asked once a list: strung numbers read as unstrung would be wrong by a whole set of strings. */
const asksDress = computed(
  () =>
    isStrung(said.value.assume.sport) &&
    !Object.values(mapping.value?.columns ?? {}).some(({ field }) => field === 'strings'),
);
const dressOf = computed(() => {
  const { sport: of } = said.value.assume;
  return { usual: usualDress(of), bare: { ...SPORTS[of].dress.bare } };
});
const dressChoices = computed(() => [
  { value: 'usual' as const, title: dressWords(dressOf.value.usual, said.value.assume.sport) },
  { value: 'bare' as const, title: dressWords(dressOf.value.bare, said.value.assume.sport) },
  { value: 'other' as const, title: 'otherwise…' },
]);
const otherwise = ref(false);
const dressChoice = computed({
  get() {
    const { dress } = said.value.assume;
    if (otherwise.value) return 'other';
    if (same(dress, dressOf.value.usual)) return 'usual';
    return same(dress, dressOf.value.bare) ? 'bare' : 'other';
  },
  set(choice) {
    otherwise.value = choice === 'other';
    if (choice !== 'other') reading.assume({ dress: dressOf.value[choice] });
  },
});
const samples = (i: number): string =>
  (head.value?.rows ?? [])
    .slice(0, 3)
    .map((row) => row[i] ?? '')
    .filter(Boolean)
    .join(' · ');
async function choose(event: Event): Promise<void> {
  const file = (event.target as HTMLInputElement).files?.[0];
  if (file) await reading.take(file);
}
const ready = computed(() => text.value !== '' && unclear.value.length === 0);

async function store(skipBad: boolean): Promise<void> {
  const found = await reading.send('store', skipBad);
  if (!found || (found.skipped > 0 && !skipBad)) return;
  const left = [
    found.already > 0 ? `${counted(found.already, 'row was', 'rows were')} already there` : '',
    found.skipped > 0 ? `${counted(found.skipped, 'row was', 'rows were')} left out` : '',
  ].filter(Boolean);
  done.value = `${counted(found.stored, 'setup', 'setups')} stored${left.length > 0 ? `; ${left.join(', ')}` : ''}.`;
  text.value = '';
  lines.value = '';
  result.value = undefined;
  emit('stored');
}

/** A row as it is being put right. */
const mending = reactive<{ line: number; cells: string[] }>({ line: 0, cells: [] });
function begin(line: number): void {
  mending.line = line;
  mending.cells = reading.cellsAt(line);
}
async function mend(): Promise<void> {
  reading.mend(mending.line, [...mending.cells]);
  mending.line = 0;
  await reading.send('check');
}
const wrongAt = (line: number, header: string): string[] =>
  result.value?.problems
    .filter((p) => p.line === line && p.column === header)
    .map(({ message }) => message) ?? [];
</script>

<template>
  <Sheet v-model="open" title="Import setups" :width="880" :persistent="busy !== undefined">
    <p v-if="done" class="good" role="status">{{ done }}</p>
    <ChoiceRow v-model="from" label="From" :choices="FROM" class="mb-3" />
    <template v-if="from === 'file'">
      <p class="soft small">
        CSV with any columns in any order, or a file of setups in JSON. Columns are guessed from their names;
        you say what they are where that is wrong.
      </p>
      <input
        type="file"
        accept=".csv,.txt,.tsv,.json,text/csv,application/json"
        aria-label="The file"
        @change="choose"
      />
    </template>
    <template v-else>
      <v-textarea
        v-model="lines"
        label="One setup per line, as you’d type it"
        rows="5"
        hint="Bram Lote 2024: 337 g, 6 HL, 331 strung"
        persistent-hint
        @update:model-value="reading.paste(lines)"
      />
    </template>

    <template v-if="mapping && head">
      <div v-if="from === 'file'" class="columns" role="group" aria-label="What the columns are">
        <template v-for="(header, i) in head.headers" :key="header">
          <span class="header"
            ><b>{{ header }}</b
            ><span class="soft small ml-2">{{ samples(i) }}</span></span
          >
          <v-autocomplete
            :model-value="mapping.columns[header]?.field ?? null"
            :items="fields"
            auto-select-first
            :label="`“${header}” is`"
            hide-details
            @update:model-value="reading.map(header, $event)"
          />
          <v-select
            v-if="unitsOf(header).length > 1"
            :model-value="mapping.columns[header]?.unit ?? null"
            :items="unitsOf(header)"
            :label="`Unit of “${header}”`"
            :error-messages="unclear.includes(header) ? ['Choose a unit'] : []"
            @update:model-value="reading.map(header, mapping!.columns[header]!.field, $event!)"
          />
          <span v-else />
        </template>
      </div>
      <p v-if="displaced" class="warn small" role="status">
        “{{ displaced.header }}” was {{ FIELD_NAMES[displaced.field] }}. It is left out now.
        <button type="button" class="link" @click="reading.map(displaced.header, displaced.field)">
          Put it back
        </button>
      </p>
      <section v-if="asksDress" class="on-it" aria-label="What is on the frames">
        <h3 class="heading">The list doesn’t say how its frames are strung and gripped. They are:</h3>
        <ChoiceRow v-model="dressChoice" label="What is on the frames" :choices="dressChoices" />
      </section>
      <MoreFields title="Defaults for missing values" open>
        <div class="assumed">
          <v-select
            :model-value="said.assume.sport"
            :items="SPORT_ITEMS"
            label="Sport"
            hide-details
            @update:model-value="reading.assume({ sport: $event })"
          />
          <v-select
            :model-value="said.assume.sourceKind"
            :items="kinds"
            label="Kind of source"
            hide-details
            @update:model-value="reading.assume({ sourceKind: $event })"
          />
          <v-text-field
            :model-value="said.assume.source"
            label="Where it comes from"
            hide-details
            @update:model-value="reading.assume({ source: $event })"
          />
        </div>
        <AxisQuestion
          v-if="asking"
          :model-value="typedAxis.axisCm.value"
          :sport="sport"
          @update:model-value="typedAxis.axisCm.value = $event"
        />
        <DressForm
          v-if="!asksDress || dressChoice === 'other'"
          :model-value="said.assume.dress"
          :sport="said.assume.sport"
          @update:model-value="reading.assume({ dress: $event })"
        />
      </MoreFields>
      <table class="plain mt-2">
        <caption class="soft small">
          Preview
        </caption>
        <thead>
          <tr>
            <th>Name</th>
            <th v-for="key in keys" :key="key" class="num">
              {{ SPEC_NAMES[key] }}<template v-if="units.unit(key)">, {{ units.unit(key) }}</template>
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="({ read, cells }, i) in preview" :key="i">
            <template v-if="read && 'setup' in read">
              <td>{{ read.setup.name }}</td>
              <td v-for="key in keys" :key="key" class="num">
                {{
                  read.setup.specs[key] === undefined
                    ? '—'
                    : units.show(key, read.setup.specs[key]!, read.setup.shape)
                }}
              </td>
            </template>
            <template v-else>
              <td>{{ cells[0] }}</td>
              <td :colspan="keys.length" class="warn">
                {{ read?.problems.map(({ message }) => message).join(' ') ?? 'an empty row' }}
              </td>
            </template>
          </tr>
        </tbody>
      </table>
    </template>
    <p v-else-if="json && text" class="soft">{{ name }} is read as a file of setups.</p>

    <div v-if="busy" class="line" role="status">
      <v-progress-linear :model-value="100 * progress" aria-label="How far it is" height="8" />
      <span class="nowrap"
        >{{ busy === 'check' ? 'Checking' : 'Storing' }}, {{ Math.round(100 * progress) }} %</span
      >
      <v-btn variant="outlined" @click="reading.stop()">Stop</v-btn>
    </div>
    <p v-if="refusal" class="miss" role="alert">{{ refusal }}</p>

    <section v-if="result && !busy" aria-label="What was found">
      <p role="status">
        {{ counted(result.rows, 'row', 'rows') }}: {{ result.rows - result.skipped - result.already }} new,
        {{ result.already }} already there,
        <span :class="{ warn: result.skipped > 0 }">{{ result.skipped }} to fix</span>.
        <template v-if="result.skipped > 0">Nothing is imported until they are fixed or skipped.</template>
      </p>
      <ul class="bad">
        <li v-for="{ line, problems } in bad" :key="line">
          <form v-if="mending.line === line && head" class="mend" @submit.prevent="mend">
            <v-text-field
              v-for="(_, i) in mending.cells"
              :key="i"
              v-model="mending.cells[i]"
              v-first="i === 0"
              :label="head.headers[i] ?? `cell ${i + 1}`"
              :error-messages="wrongAt(line, head.headers[i] ?? '')"
            />
            <v-btn type="submit" color="primary">Save row</v-btn>
            <v-btn variant="text" @click="mending.line = 0">Skip</v-btn>
          </form>
          <template v-else>
            <span class="soft">{{ json ? 'Setup' : 'Line' }} {{ line }}</span>
            <span>
              <span v-for="(p, i) in problems" :key="i"
                ><b v-if="p.column">{{ p.column }}:</b> {{ p.message }}
              </span>
            </span>
            <v-btn v-if="!json" variant="text" :aria-label="`Fix line ${line}`" @click="begin(line)"
              >Fix</v-btn
            >
          </template>
        </li>
      </ul>
      <p v-if="bad.length > 0 && bad.length < result.skipped" class="soft small">
        These are the first {{ bad.length }} of {{ result.skipped }} rows to fix.
      </p>
    </section>

    <div class="buttons">
      <v-btn variant="text" :disabled="busy !== undefined" @click="open = false">Close</v-btn>
      <v-btn
        v-if="result && result.skipped > 0"
        variant="outlined"
        :disabled="busy !== undefined"
        @click="store(true)"
        >Skip those and import the rest</v-btn
      >
      <v-btn variant="outlined" :disabled="!ready || busy !== undefined" @click="reading.send('check')"
        >Check</v-btn
      >
      <v-btn color="primary" :disabled="!ready || busy !== undefined" @click="store(false)">Import all</v-btn>
    </div>
  </Sheet>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: minmax(140px, 1fr) minmax(180px, 1fr) minmax(150px, 1fr);
  gap: 8px 12px;
  align-items: center;
  margin: 12px 0;
}
.header {
  overflow-wrap: anywhere;
}
.on-it {
  margin: 8px 0 12px;
}
.on-it .heading {
  margin-bottom: 6px;
}
.assumed {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 12px;
}
caption {
  text-align: left;
  padding: 6px 8px 0;
}
.line,
.buttons {
  display: flex;
  gap: 12px;
  align-items: center;
  margin-top: 12px;
}
.buttons {
  justify-content: flex-end;
  flex-wrap: wrap;
}
.bad {
  list-style: none;
  padding: 0;
  margin: 0;
}
.bad li {
  border-top: 1px solid rgb(var(--v-theme-line));
  padding: 6px 0;
  display: grid;
  grid-template-columns: 90px 1fr auto;
  gap: 10px;
  align-items: center;
}
.mend {
  grid-column: 1 / -1;
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: start;
}
.mend > :deep(.v-input) {
  flex: 1 1 180px;
}
@media (max-width: 700px) {
  .columns,
  .assumed {
    grid-template-columns: 1fr;
  }
}
</style>
