<script setup lang="ts">
import { computed, onMounted, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import type { Access } from '@kevro/contract';
import { Refused, api } from '../api/client';

// What somebody comes here to do: come in by the code that the bench shows; come in by the passphrase; read why they cannot.
const route = useRoute();
const router = useRouter();
const access = ref<Access>();
const person = ref('');
const ownWord = ref('');
const code = ref('');
const passphrase = ref('');
const name = ref('');
const failure = ref('');
const refused = ref<Refused>();
const busy = ref(false);
/** Which of the forms was sent last: its sentence stands beside its own field. */
const byName = ref(false);

/** Where they were going; only a page of this shop. */
function goOn(): Promise<unknown> {
  const { to } = route.query;
  return router.replace(typeof to === 'string' && /^\/(?!\/)/.test(to) ? to : '/');
}
async function signIn(
  by: { code: string } | { passphrase: string } | { person: string; passphrase: string },
): Promise<void> {
  if (busy.value) return;
  busy.value = true;
  failure.value = '';
  refused.value = undefined;
  try {
    byName.value = 'person' in by;
    await api('signIn', { body: { ...by, name: name.value } });
    await goOn();
  } catch (error) {
    if (error instanceof Refused && error.errors.length > 0) refused.value = error;
    else failure.value = error instanceof Error ? error.message : String(error);
  } finally {
    busy.value = false;
  }
}
/** Of several shops served here the one that somebody asks for: said once on a device. */
const otherShop = ref(false);
const shop = ref('');
const asksShop = computed(
  () => access.value?.several === true && (otherShop.value || access.value.shop === ''),
);
function goToShop(): void {
  const { to } = route.query;
  const query = new URLSearchParams({ shop: shop.value.trim(), ...(typeof to === 'string' ? { to } : {}) });
  window.location.assign(`/sign-in?${query.toString()}`);
}
const at = (path: string): string[] => [refused.value?.at(path)].filter((s) => s !== undefined);
async function look(): Promise<void> {
  try {
    access.value = await api('access');
    if (access.value.signedIn) await goOn();
  } catch (error) {
    failure.value = error instanceof Error ? error.message : String(error);
  }
}
onMounted(async () => {
  await look();
  // The picture at the bench leads here with its code.
  const shown = route.hash.slice(1);
  if (shown && access.value && !access.value.signedIn) {
    code.value = shown;
    await signIn({ code: shown });
  }
});
</script>

<template>
  <div class="page sign-in">
    <h1>Sign in</h1>
    <p v-if="failure" class="miss" role="alert">
      {{ failure }} <button v-if="!access" type="button" class="link" @click="look">Try again</button>
    </p>
    <form v-if="access && asksShop" novalidate @submit.prevent="goToShop">
      <v-text-field
        v-model="shop"
        v-first
        label="Which shop"
        hint="as it is asked for here, such as: lantern-lane"
        persistent-hint
        autocapitalize="none"
        autocomplete="organization"
      />
      <v-btn type="submit" color="primary" size="large" :disabled="shop.trim() === ''">Go on</v-btn>
    </form>
    <p v-else-if="access?.several" class="soft mb-0">
      Shop: <b>{{ access.shop }}</b>
      <button type="button" class="link ml-2" @click="otherShop = true">another shop</button>
    </p>
    <template v-if="access && asksShop" />
    <p v-else-if="access && !access.passphraseSet && access.several">
      Nobody is let in here yet. Whoever runs Kevro for this shop lets its first owner in.
    </p>
    <p v-else-if="access && !access.passphraseSet">
      Other devices aren’t allowed yet. On the bench computer, set a passphrase under Settings → Backups and
      devices.
    </p>
    <template v-else-if="access">
      <form
        v-if="access.named"
        class="by-name"
        novalidate
        @submit.prevent="signIn({ person, passphrase: ownWord })"
      >
        <v-text-field v-model="person" v-first label="Your name" autocomplete="username" />
        <v-text-field
          v-model="ownWord"
          label="Your passphrase"
          type="password"
          autocomplete="current-password"
          :error-messages="byName ? at('passphrase') : []"
        />
        <v-btn
          type="submit"
          color="primary"
          size="large"
          :loading="busy"
          :disabled="person === '' || ownWord === ''"
          >Sign in</v-btn
        >
      </form>
      <h2 v-if="access.named" class="heading">Or let this device in without a name</h2>
      <v-text-field
        v-model="name"
        label="What this device is called"
        hint="such as: tablet at court 2"
        persistent-hint
        :error-messages="at('name')"
      />
      <form novalidate @submit.prevent="signIn({ code })">
        <v-text-field
          v-model="code"
          label="Code from the bench machine"
          autocapitalize="characters"
          autocomplete="one-time-code"
          :error-messages="at('code')"
        />
        <v-btn
          type="submit"
          :color="access.named ? undefined : 'primary'"
          :variant="access.named ? 'outlined' : 'flat'"
          size="large"
          :loading="busy"
          :disabled="code === ''"
          >Sign in with the code</v-btn
        >
      </form>
      <form novalidate @submit.prevent="signIn({ passphrase })">
        <v-text-field
          v-model="passphrase"
          label="Or the shop’s passphrase"
          type="password"
          autocomplete="current-password"
          :error-messages="byName ? [] : at('passphrase')"
        />
        <v-btn type="submit" variant="outlined" size="large" :loading="busy" :disabled="passphrase === ''">{{
          access.named ? 'Sign in with the shop’s passphrase' : 'Sign in'
        }}</v-btn>
      </form>
      <p class="soft">On the bench machine itself: open the address that Kevro printed when it started.</p>
    </template>
    <p v-else-if="!failure" class="soft" role="status">Loading…</p>
  </div>
</template>

<style scoped>
.sign-in {
  max-width: 460px;
}
.sign-in,
form {
  display: grid;
  gap: 12px;
}
form + form {
  margin-top: 12px;
}
</style>
