<script setup lang="ts">
import { computed, onMounted, ref } from 'vue';
import { PASSPHRASE_LEAST, type Access, type AnswerOf } from '@kevro/contract';
import { Refused, api } from '../api/client';
import { momentWords } from '../words/days';
import { useSaved } from '../stores/saved';

/** Who else may come in: the address, a passphrase, a code and a picture for a tablet, and those that are in. */
const saved = useSaved();
const access = ref<Access>();
const devices = ref<AnswerOf<'devices'>>([]);
const pairing = ref<AnswerOf<'pair'>>();
const passphrase = ref('');
const before = ref('');
const refused = ref<Refused>();
const failure = ref('');
const busy = ref(false);

async function load(): Promise<void> {
  access.value = await api('access');
  if (access.value.bench) devices.value = await api('devices');
}
async function trying(act: () => Promise<void>): Promise<void> {
  if (busy.value) return;
  busy.value = true;
  failure.value = '';
  refused.value = undefined;
  try {
    await act();
  } catch (error) {
    if (error instanceof Refused && error.errors.length > 0) refused.value = error;
    else failure.value = error instanceof Error ? error.message : String(error);
  } finally {
    busy.value = false;
  }
}
onMounted(() => trying(load));
const store = () =>
  trying(async () => {
    await api('setPassphrase', { body: { passphrase: passphrase.value } });
    passphrase.value = '';
    pairing.value = undefined;
    saved.stored();
    await load();
  });
const change = () =>
  trying(async () => {
    await api('ownPassphrase', { body: { before: before.value, passphrase: passphrase.value } });
    before.value = passphrase.value = '';
    saved.stored();
  });
const letIn = () =>
  trying(async () => {
    pairing.value = await api('pair');
  });
/** Listens for other devices from here on, with the picture for the first of them; or for nobody but this machine. */
const open = (now: boolean) =>
  trying(async () => {
    access.value = await api('letOthersIn', { body: { letIn: now } });
    pairing.value = now ? await api('pair') : undefined;
    saved.stored();
  });
const signOut = () =>
  trying(async () => {
    await api('signOut');
    window.location.assign('/sign-in');
  });
/** An address of its own for the picture: markup that the server made is not written into the page. */
const picture = computed(() =>
  pairing.value ? `data:image/svg+xml;charset=utf-8,${encodeURIComponent(pairing.value.picture)}` : '',
);
const reachable = computed(() => (access.value?.addresses.length ?? 0) > 0);
</script>

<template>
  <section class="devices">
    <h2 class="heading">Other devices</h2>
    <p v-if="failure" class="miss" role="alert">
      {{ failure }} <button v-if="!access" type="button" class="link" @click="trying(load)">Try again</button>
    </p>
    <p v-if="!access && !failure" class="soft" role="status">Loading…</p>
    <template v-else-if="access && !access.bench">
      <p v-if="access.who">
        You are signed in as <b>{{ access.who }}</b>, {{ access.role }}. Devices without a name are let in on
        the bench machine.
      </p>
      <p v-else>This device is signed in. Who may come in is set on the bench machine.</p>
      <form v-if="access.who" novalidate @submit.prevent="change">
        <v-text-field
          v-model="before"
          label="Your passphrase"
          type="password"
          autocomplete="current-password"
          :error-messages="[refused?.at('before')].filter((s) => s !== undefined)"
        />
        <v-text-field
          v-model="passphrase"
          label="Your new passphrase"
          :hint="`At least ${PASSPHRASE_LEAST} characters. It signs you out on every other device.`"
          persistent-hint
          type="password"
          autocomplete="new-password"
          :error-messages="[refused?.at('passphrase')].filter((s) => s !== undefined)"
        />
        <v-btn type="submit" variant="outlined" :loading="busy" :disabled="before === '' || passphrase === ''"
          >Change it</v-btn
        >
      </form>
      <div><v-btn variant="outlined" @click="signOut">Sign this device out</v-btn></div>
    </template>
    <template v-else-if="access">
      <p v-if="!reachable">
        Only this machine reaches Kevro now.
        {{ access.passphraseSet ? '' : 'Set a passphrase to let tablets and phones of your network in.' }}
      </p>
      <p v-else>
        Others in the shop’s network find it at
        <b v-for="address in access.addresses" :key="address" class="address">{{ address }}</b>.
      </p>
      <form novalidate @submit.prevent="store">
        <v-text-field
          v-model="passphrase"
          :label="access.passphraseSet ? 'Another passphrase' : 'A passphrase for the shop'"
          :hint="`At least ${PASSPHRASE_LEAST} characters; a few words are best. ${access.passphraseSet ? 'It signs every other browser out.' : ''}`"
          persistent-hint
          type="password"
          autocomplete="new-password"
          :error-messages="[refused?.at('passphrase')].filter((s) => s !== undefined)"
        />
        <v-btn type="submit" variant="outlined" :loading="busy" :disabled="passphrase === ''">Set it</v-btn>
      </form>
      <p v-if="access.passphraseSet" class="soft">
        This browser is the bench. Another browser of this machine signs in at the address that Kevro prints
        when it starts.
      </p>
      <div v-if="access.passphraseSet" class="doors">
        <v-btn v-if="!reachable" color="primary" :loading="busy" @click="open(true)"
          >Let other devices in</v-btn
        >
        <template v-else>
          <v-btn color="primary" :loading="busy" @click="letIn">Let a tablet in</v-btn>
          <v-btn v-if="!access.alwaysOpen" variant="outlined" :disabled="busy" @click="open(false)"
            >Only this machine</v-btn
          >
        </template>
      </div>
      <p v-if="access.passphraseSet && reachable" class="soft small">
        The network is not encrypted: use the shop’s own.
      </p>
      <div v-if="pairing" class="pairing" role="status">
        <img :src="picture" width="200" height="200" :alt="`QR code of ${pairing.address}`" />
        <p class="mb-0">
          Point its camera at the picture, or open {{ pairing.address.split('#')[0] }} on it and type
          <b class="code">{{ pairing.code }}</b>. It works once, until {{ momentWords(pairing.until) }}.
        </p>
      </div>
      <template v-if="devices.length > 0">
        <p class="mb-0">Signed in now:</p>
        <ul>
          <li v-for="device in devices" :key="device.signedInAt">
            {{ device.name || 'a device without a name' }}, until {{ momentWords(device.until) }}
          </li>
        </ul>
      </template>
    </template>
  </section>
</template>

<style scoped>
.devices {
  display: flex;
  flex-direction: column;
  gap: 10px;
  max-width: 560px;
}
p {
  margin: 0;
}
form {
  display: grid;
  gap: 8px;
  justify-items: start;
}
form > .v-input {
  width: 100%;
}
.address + .address::before {
  content: ' or ';
  font-weight: 400;
}
.doors {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
}
.pairing {
  display: flex;
  flex-wrap: wrap;
  gap: 16px;
  align-items: center;
}
.pairing p {
  flex: 1 1 200px;
}
/* A camera needs dark on light, in both themes. */
img {
  background: #fff;
}
.code {
  font-size: 20px;
  letter-spacing: 0.08em;
}
</style>
