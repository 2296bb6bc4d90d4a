<script setup lang="ts">
import type { NetworkReply } from '#shared/schemas/network'
import { settingsSchema } from '#shared/schemas/settings'

const store = useSettingsStore()
const network = shallowRef<NetworkReply | null>(null)
const passphrase = ref('')
const problem = ref('')
const done = ref('')

const edits = useEditsStore()
const waiting = computed(() => edits.states.reduce((sum, state) => sum + state.waiting, 0))
async function rename(text: string) {
  problem.value = ''
  const names = text
    .trim()
    .split(/[\s,;]+/)
    .join(' ')
  const parsed = settingsSchema.shape.networkNames.safeParse(names)
  if (!parsed.success) {
    problem.value = parsed.error.issues[0]!.message
    return
  }
  await store.change({ networkNames: names })
  await load()
}
async function signOut() {
  try {
    await store.signOut()
    window.location.assign('/')
  } catch (error) {
    problem.value = sentenceOf(error)
  }
}

async function load() {
  try {
    network.value = await store.network()
  } catch (error) {
    problem.value = sentenceOf(error)
  }
}
load()
async function set(text: string) {
  problem.value = done.value = ''
  try {
    await store.setPassphrase(text)
    done.value =
      text === ''
        ? 'Taken away: the application cannot be opened to the network.'
        : 'Kept. Everyone signed in with an older one has to sign in again.'
    passphrase.value = ''
    await load()
  } catch (error) {
    problem.value = sentenceOf(error)
  }
}
</script>

<template>
  <section class="panel">
    <h2>On the network</h2>
    <p class="soft">
      For a phone at the bench. Only this machine can open the application unless it is started with “npm start --
      --lan”; then other devices need this passphrase.
    </p>
    <p
      v-if="network?.shouldRenew"
      class="note"
    >
      The passphrase is of an earlier form or shorter than is asked for now. It goes on opening; set a new one of at
      least ten characters when you can.
    </p>
    <p
      v-if="network?.fromEnvironment"
      class="note"
    >
      The passphrase was given by the environment; what is set here does not count until that is gone.
    </p>
    <OneField
      v-if="network?.atTheMachine !== false"
      v-model="passphrase"
      class="passphrase"
      label="Passphrase"
      shown
      type="password"
      autocomplete="new-password"
      :placeholder="network?.passphraseSet ? 'one is set' : 'at least 10 characters'"
      words="Set"
      needed
      @send="set(passphrase)"
    >
      <el-button
        v-if="network?.passphraseSet && !network.fromEnvironment"
        @click="set('')"
      >
        Take it away
      </el-button>
    </OneField>
    <label
      v-if="network?.atTheMachine !== false"
      class="field names"
    >Names of this machine in the network, with blanks between<EditField
      :value="store.settings.networkNames"
      @change="rename(($event.target as HTMLInputElement).value)"
    /><small class="soft">Only needed where the phone calls it by a name of your router’s.</small></label>
    <p v-if="network && !network.atTheMachine">
      You are signed in from another device. <template v-if="waiting > 0">
        {{ changesWords(waiting) }} {{ waiting === 1 ? 'waits' : 'wait' }} to be written: kept in this browser, sent after the next sign-in.
      </template><el-button @click="signOut">
        Sign out{{ waiting > 0 ? ' all the same' : '' }}
      </el-button>
    </p>
    <p
      v-if="problem"
      class="problem"
      role="alert"
    >
      {{ problem }}
    </p>
    <p
      v-if="done"
      class="soft"
      role="status"
    >
      {{ done }}
    </p>
    <div
      v-if="network?.on"
      class="codes"
    >
      <p
        v-if="network.addresses.length === 0"
        class="soft"
      >
        Started for the network, but this machine has no network address just now.
      </p>
      <figure
        v-for="entry in network.addresses"
        :key="entry.address"
      >
        <img
          :src="entry.code"
          :alt="`Code that opens ${entry.address}`"
          width="168"
          height="168"
        ><figcaption class="figure">
          {{ entry.address }}
        </figcaption>
      </figure>
    </div>
  </section>
</template>

<style scoped>
small {
  display: block;
  font-weight: 400;
}
.names {
  margin: 10px 0;
  max-width: 420px;
}
.passphrase {
  display: flex;
  gap: 8px;
  align-items: end;
  flex-wrap: wrap;
}
.passphrase .field {
  flex: 1;
  max-width: 300px;
}
.codes {
  display: flex;
  gap: 18px;
  margin-top: 14px;
  flex-wrap: wrap;
}
figure {
  margin: 0;
  text-align: center;
}
img {
  border: 1px solid var(--line);
  border-radius: 8px;
  background: #fff;
}
figcaption {
  font-size: 12px;
}
</style>
