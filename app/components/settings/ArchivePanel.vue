<script setup lang="ts">
import type { Holdings } from '#shared/schemas/archive'
import { figure } from '#core/text/display'

/** Everything in one file; copies made by themselves; putting one of them in the place of what is here. */
const archive = useArchiveStore()
const settings = useSettingsStore()
const problem = ref('')
const busy = ref('')

async function attempt(what: string, work: () => Promise<unknown>) {
  problem.value = ''
  busy.value = what
  try {
    await work()
  } catch (error) {
    problem.value = sentenceOf(error)
  } finally {
    busy.value = ''
  }
}
/** A check that is under way. */
let checking: AbortController | null = null
function stopping(): AbortSignal {
  checking = new AbortController()
  return checking.signal
}
void attempt('', archive.load)

const sizeWords = (bytes: number) => (bytes >= 1e9 ? `${figure(bytes / 1e9, 1)} GB` : `${figure(bytes / 1e6, 1)} MB`)
const countWords = ({ builds, flights, parts }: Holdings) =>
  `${builds.length === 1 ? 'one build' : `${builds.length} builds`}, ${flights === 1 ? 'one flight' : `${flights} flights`}, ` +
  `${parts === 1 ? 'one part' : `${parts} parts`}`
const unnamedWords = computed(() => {
  const { pictures, logs, bytes } = archive.unnamed ?? { pictures: 0, logs: 0, bytes: 0 }
  if (pictures + logs === 0) return 'There are none.'
  const counted = (count: number, one: string, many: string) => (count === 1 ? `one ${one}` : `${count} ${many}`)
  return `${counted(pictures, 'picture', 'pictures')} and ${counted(logs, 'log', 'logs')}, ${sizeWords(bytes)}`
})
const hereWords = computed(() => (archive.checked?.here ? countWords(archive.checked.here) : 'cannot be read'))
const daysWords = ({ from, to }: Holdings) => (from && to ? `${dayOf(from, 'short')} to ${dayOf(to, 'short')}` : 'nothing written')
/** Builds of both, side by side by name. */
const beside = computed(() => {
  const checked = archive.checked
  if (!checked) return []
  const names = [...new Set([...checked.holds.builds, ...(checked.here?.builds ?? [])].map(({ name }) => name))]
  const told = (holds: Holdings | null, name: string) => {
    const build = holds?.builds.find(one => one.name === name)
    return build ? `${build.entries} entries${build.changedAt ? `, last ${dayOf(build.changedAt, 'short')}` : ''}` : 'not there'
  }
  return names.map(name => ({ name, holds: told(checked.holds, name), here: told(checked.here, name) }))
})
</script>

<template>
  <section
    id="archive"
    class="panel"
  >
    <h2>Archive</h2>
    <p>
      Everything in one file: builds with their journals, drawer, scales, flights, photos and logs, each with a sum by which
      every flipped bit is found. The passphrase of this machine is not in it.
    </p>
    <p class="buttons">
      <a
        href="/api/archive"
        class="button"
        download
      >Keep everything in one file</a>
      <el-button
        :loading="busy === 'copy'"
        @click="attempt('copy', archive.makeCopy)"
      >
        Make a copy beside the data now
      </el-button>
    </p>
    <el-checkbox
      :model-value="settings.settings.automaticCopies"
      @change="settings.change({ automaticCopies: !settings.settings.automaticCopies })"
    >
      Make a copy every day; 7 days, 4 weeks and 12 months stay
    </el-checkbox>
    <template v-if="archive.kept">
      <p
        v-if="archive.kept.failure"
        class="problem"
      >
        The copy that was due could not be made, {{ momentWords(archive.kept.failure.at) }}: {{ archive.kept.failure.words }}
      </p>
      <p class="soft">
        Copies lie in <code>{{ archive.kept.folder }}</code>; {{ sizeWords(archive.kept.freeBytes) }} are free there.
      </p>
      <table
        v-if="archive.kept.copies.length > 0"
        class="answers-table"
      >
        <caption class="visually-hidden">
          Copies beside the data
        </caption>
        <thead>
          <tr>
            <th>Copy of</th><th class="right">
              Size
            </th><th><span class="visually-hidden">Restore</span></th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="copy in archive.kept.copies"
            :key="copy.name"
          >
            <td>{{ momentWords(copy.madeAt) }}</td><td class="right figure">
              {{ sizeWords(copy.bytes) }}
            </td><td class="right">
              <el-button
                v-if="archive.kept.atTheMachine"
                link
                type="primary"
                :disabled="busy !== ''"
                :aria-label="`Check the copy of ${momentWords(copy.madeAt)} to restore it`"
                @click="attempt('check', () => archive.checkCopy(copy.name, stopping()))"
              >
                Restore …
              </el-button>
            </td>
          </tr>
        </tbody>
      </table>
      <p
        v-else
        class="soft"
      >
        There is no copy yet.
      </p>
      <FileChoose
        v-if="archive.kept.atTheMachine"
        words="Restore from a file …"
        accept=".zip,application/zip"
        :disabled="busy !== ''"
        @file="chosen => attempt('check', () => archive.checkFile(chosen, stopping()))"
      />
      <p
        v-else
        class="soft"
      >
        Restoring is done at the machine itself.
      </p>
    </template>
    <template v-if="archive.kept">
      <h3>Files that nothing names any more</h3>
      <p class="soft">
        Pictures and logs stay on the disk when what named them is gone, as long as that can be taken back.
      </p>
      <p class="buttons">
        <el-button
          :loading="busy === 'look'"
          @click="attempt('look', archive.lookForUnnamed)"
        >
          Look for them
        </el-button>
        <span
          v-if="archive.unnamed"
          role="status"
        >{{ unnamedWords }}</span>
        <SureButton
          v-if="archive.unnamed && archive.unnamed.pictures + archive.unnamed.logs > 0"
          words="Clear them away"
          question="Take these files off the disk for good?"
          @sure="attempt('look', archive.clearUnnamed)"
        />
      </p>
    </template>
    <p
      v-if="busy === 'check'"
      class="soft"
      role="status"
    >
      Checked byte for byte … <el-button
        link
        type="primary"
        @click="checking?.abort()"
      >
        Stop
      </el-button>
    </p>
    <p
      v-if="problem"
      class="problem"
      role="alert"
    >
      {{ problem }}
    </p>
    <div
      v-if="archive.checked"
      class="checked"
      role="group"
      aria-label="The archive beside what is here"
    >
      <p>
        <b>Checked whole:</b> {{ archive.checked.members }} files, {{ sizeWords(archive.checked.bytes) }}, made
        {{ momentWords(archive.checked.madeAt) }}. Nothing has been changed yet.
      </p>
      <table class="answers-table">
        <thead>
          <tr>
            <th />
            <th>In the archive</th><th>Here now</th>
          </tr>
        </thead>
        <tbody>
          <tr>
            <th scope="row">
              In all
            </th><td>{{ countWords(archive.checked.holds) }}</td><td>{{ hereWords }}</td>
          </tr><tr>
            <th scope="row">
              Days
            </th><td>{{ daysWords(archive.checked.holds) }}</td><td>{{ archive.checked.here ? daysWords(archive.checked.here) : '' }}</td>
          </tr>
          <tr
            v-for="build in beside"
            :key="build.name"
          >
            <th scope="row">
              {{ build.name }}
            </th><td>{{ build.holds }}</td><td>{{ build.here }}</td>
          </tr>
        </tbody>
      </table>
      <p>
        What is here is kept whole in a folder of its own. Edits that still wait in a browser for it are listed there as not
        written.
      </p>
      <p class="buttons">
        <SureButton
          words="Restore"
          question="Put the archive in the place of what is here?"
          @sure="attempt('restore', archive.restore)"
        />
        <el-button @click="archive.letGo">
          Leave everything as it is
        </el-button>
      </p>
    </div>
  </section>
</template>

<style scoped>
.file-choose {
  margin: 10px 0;
}
.buttons {
  display: flex;
  gap: 8px;
  flex-wrap: wrap;
  align-items: center;
}
.checked {
  border: 1px solid var(--brass);
  background: var(--note);
  border-radius: 8px;
  padding: 4px 14px 10px;
  margin-top: 10px;
}
.checked table {
  width: 100%;
}
.checked th {
  text-align: left;
  font-weight: 600;
}
code {
  font-size: 12px;
  overflow-wrap: anywhere;
}
</style>
