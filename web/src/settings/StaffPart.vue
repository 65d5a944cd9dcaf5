<script setup lang="ts">
import { computed, onMounted, ref } from 'vue';
import { PASSPHRASE_LEAST, ROLES, type Access, type Role, type StaffMember } from '@kevro/contract';
import { api } from '../api/client';
import FormDialog from '../forms/FormDialog.vue';
import { useSaved } from '../stores/saved';
import { ROLE_HINTS, ROLE_NAMES } from '../words/roles';

/** The people of the shop who sign in by name: who they are, what they may do, a passphrase for each. */
const saved = useSaved();
const access = ref<Access>();
const people = ref<StaffMember[]>();
const failure = ref('');
const isOwner = computed(() => access.value?.role === 'owner');

async function load(): Promise<void> {
  failure.value = '';
  try {
    access.value = await api('access');
    if (isOwner.value) people.value = await api('staff');
  } catch (error) {
    failure.value = error instanceof Error ? error.message : String(error);
  }
}
onMounted(load);

const roles = ROLES.map((value) => ({
  value,
  title: ROLE_NAMES[value],
  props: { subtitle: ROLE_HINTS[value] },
}));
/** What the form is open for: somebody new, somebody's name and role, or another passphrase for them. */
const open = ref(false);
const of = ref<{ person?: StaffMember; what: 'add' | 'edit' | 'passphrase' }>({ what: 'add' });
const name = ref('');
const role = ref<Role>('fitter');
const passphrase = ref('');
function show(what: 'add' | 'edit' | 'passphrase', person?: StaffMember): void {
  of.value = { what, ...(person ? { person } : {}) };
  name.value = person?.name ?? '';
  role.value = person?.role ?? 'fitter';
  passphrase.value = '';
  open.value = true;
}
const title = computed(() => {
  const { what, person } = of.value;
  if (what === 'add') return 'Let somebody in by name';
  return what === 'edit' ? `Change ${person?.name ?? ''}` : `New passphrase for ${person?.name ?? ''}`;
});
async function submit(): Promise<void> {
  const { what, person } = of.value;
  const said = { name: name.value, role: role.value };
  if (what === 'add') await api('addStaff', { body: { ...said, passphrase: passphrase.value } });
  else if (what === 'edit') await edit(person as StaffMember, said);
  else await api('resetStaff', { id: person?.id ?? '', body: { passphrase: passphrase.value } });
  await load();
  saved.stored();
}
const edit = ({ id, name: was, role: had, left }: StaffMember, change: Partial<StaffMember>) =>
  api('editStaff', { id, body: { name: was, role: had, left, ...change } });
async function leave(person: StaffMember): Promise<void> {
  try {
    await edit(person, { left: !person.left });
    await load();
    saved.stored();
  } catch (error) {
    saved.failed(error);
  }
}
</script>

<template>
  <section v-if="isOwner || failure" class="staff">
    <h2 class="heading">People of the shop</h2>
    <p v-if="failure" class="miss" role="alert">
      {{ failure }} <button type="button" class="link" @click="load">Try again</button>
    </p>
    <template v-else-if="people">
      <p v-if="!access?.passphraseSet">
        Set a passphrase for the shop above; then colleagues can sign in by name, and the change log says who
        did what.
      </p>
      <template v-else>
        <p v-if="people.length === 0" class="soft">
          Nobody signs in by name yet. One bench needs no names; with several people the change log says who
          did what.
        </p>
        <ul v-else>
          <li v-for="person in people" :key="person.id">
            <span class="who">
              <b>{{ person.name }}</b>
              <span class="soft small">{{ person.left ? 'has left' : ROLE_NAMES[person.role] }}</span>
            </span>
            <v-btn
              v-if="!person.left"
              variant="text"
              :aria-label="`Change ${person.name}`"
              @click="show('edit', person)"
              >Change</v-btn
            >
            <v-btn
              v-if="!person.left"
              variant="text"
              :aria-label="`New passphrase for ${person.name}`"
              @click="show('passphrase', person)"
              >New passphrase</v-btn
            >
            <v-btn
              variant="text"
              :aria-label="person.left ? `${person.name} is back` : `${person.name} has left`"
              @click="leave(person)"
              >{{ person.left ? 'Is back' : 'Has left' }}</v-btn
            >
          </li>
        </ul>
        <div><v-btn variant="outlined" @click="show('add')">Let somebody in by name</v-btn></div>
      </template>
    </template>
    <FormDialog
      v-model="open"
      :title="title"
      :store="of.what === 'add' ? 'Let them in' : 'Save'"
      :width="480"
      :submit="submit"
    >
      <template #default="{ at }">
        <template v-if="of.what !== 'passphrase'">
          <v-text-field v-model="name" v-first label="Name" autocomplete="off" :error-messages="at('name')" />
          <v-select v-model="role" label="Role" :items="roles" :hint="ROLE_HINTS[role]" persistent-hint />
        </template>
        <v-text-field
          v-if="of.what !== 'edit'"
          v-model="passphrase"
          v-first="of.what === 'passphrase'"
          label="Passphrase"
          :hint="`At least ${PASSPHRASE_LEAST} characters. They can change it once they are in.`"
          persistent-hint
          type="password"
          autocomplete="new-password"
          :error-messages="at('passphrase')"
        />
      </template>
    </FormDialog>
  </section>
</template>

<style scoped>
.staff {
  display: flex;
  flex-direction: column;
  gap: 10px;
  max-width: 560px;
}
p {
  margin: 0;
}
ul {
  list-style: none;
  padding: 0;
  margin: 0;
}
li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px;
  border-top: 1px solid rgb(var(--v-theme-line));
}
.who {
  flex: 1 1 160px;
  display: flex;
  gap: 8px;
  align-items: baseline;
}
</style>
