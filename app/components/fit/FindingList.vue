<script setup lang="ts">
import { shortName } from '#core/aircraft/wiring'
import { checks, type AskedFor, type Finding, type FitReport, type WayOut } from '#core/aircraft/fit'
import { propertyNamed } from '#core/model/properties'

const props = defineProps<{ report: FitReport; selectedId: string | null }>()
const emit = defineEmits<{ select: [finding: Finding]; way: [way: WayOut]; aside: [finding: Finding, why: string] }>()
const store = useBuildStore()
const askWhy = ref<string | null>(null)
const why = ref('')
const showFits = ref(false)
const words = { clash: 'Clash', check: 'Check', advice: 'Advice' } as const
const standing = computed(() => props.report.findings.filter(f => f.setAside === null))
const aside = computed(() => props.report.findings.filter(f => f.setAside !== null))
const titleOf = (id: string) => checks.find(check => check.id === id)?.title ?? id
const fits = computed(() => [...new Map(props.report.fits.map(f => [f.words, f])).values()])

function askedWords(asked: AskedFor): string {
  const line = store.lineOf(asked.lineId)
  if (!line) return ''
  const label =
    asked.key === 'feed'
      ? 'which feed it is on'
      : (propertyNamed(line.slot, asked.key)?.label.toLowerCase() ?? (asked.key === 'plug' ? 'plug' : asked.key))
  return `${shortName(line)}: ${label}`
}
const asked = computed(() => props.report.asked.filter(a => store.lineOf(a.lineId)))
const folded = computed(() => props.report.folded.filter(a => store.lineOf(a.lineId)))
function setAside(finding: Finding) {
  emit('aside', finding, why.value.trim())
  askWhy.value = null
  why.value = ''
}
</script>

<template>
  <div class="findings">
    <div
      v-for="finding in standing"
      :key="finding.id"
      class="finding"
      :class="[finding.severity, { selected: finding.id === selectedId }]"
      :data-finding="finding.id"
    >
      <span class="mark"><i aria-hidden="true" />{{ words[finding.severity] }}</span>
      <div class="said">
        <el-button
          link
          type="primary"
          class="title"
          @click="emit('select', finding)"
        >
          {{ finding.title }}
        </el-button>
        <p>
          {{ finding.sentence }}<span
            v-if="finding.onlyIn.length > 0"
            class="soft"
          > Only in {{ finding.onlyIn.map(n => `“${n}”`).join(', ') }}.</span>
        </p>
        <OneField
          v-if="askWhy === finding.id"
          v-model="why"
          class="why"
          :label="`Why you live with: ${finding.title}`"
          placeholder="why you live with it"
          words="Set aside"
          @send="setAside(finding)"
        />
      </div>
      <div class="acts">
        <el-button
          v-if="finding.ways.find(w => w.move)"
          @click="emit('way', finding.ways.find(w => w.move)!)"
        >
          Do that
        </el-button>
        <el-button
          v-else-if="askWhy !== finding.id"
          link
          type="primary"
          @click="askWhy = finding.id"
        >
          Live with it
        </el-button>
        <small
          v-if="finding.ways[0]"
          class="soft"
        >{{ finding.ways.find(w => w.move)?.words ?? finding.ways[0].words }}</small>
      </div>
    </div>
    <div
      v-if="asked.length > 0"
      class="finding asks"
    >
      <span class="mark"><i aria-hidden="true" />Not known</span>
      <div class="said">
        <b>{{ asked.length === 1 ? 'One thing that could hide a clash' : `${asked.length} things that could hide a clash` }}</b>
        <p>
          <NuxtLink
            v-for="a in asked"
            :key="`${a.lineId}/${a.key}`"
            :to="{ path: `/builds/${store.build!.id}/parts`, query: { line: a.lineId, asked: a.key } }"
            :title="`for ${a.forChecks.map(titleOf).join(', ')}`"
          >{{ askedWords(a) }}</NuxtLink>
        </p>
      </div>
    </div>
    <div class="finding good">
      <span class="mark"><i aria-hidden="true" />Good</span>
      <div class="said">
        <b>{{ fits.length }} {{ fits.length === 1 ? 'thing fits' : 'things fit' }}</b><p class="soft">
          {{
            showFits
              ? fits.map(f => f.words).join(' · ')
              : fits
                .slice(0, 5)
                .map(f => f.words)
                .join(', ') + (fits.length > 5 ? ' …' : '')
          }}
        </p>
      </div>
      <div class="acts">
        <el-button
          v-if="fits.length > 5"
          @click="showFits = !showFits"
        >
          {{ showFits ? 'Fewer' : 'Show' }}
        </el-button>
      </div>
    </div>
    <details
      v-if="folded.length > 0 || aside.length > 0"
      class="rest"
    >
      <summary>
        {{
          [
            folded.length > 0 ? `${folded.length} more not known, none of which could reveal a clash` : '',
            aside.length > 0 ? `${aside.length} set aside` : '',
          ]
            .filter(t => t)
            .join(' · ')
        }}
      </summary>
      <p
        v-if="folded.length > 0"
        class="soft"
      >
        {{ folded.map(askedWords).filter(t => t).join(' · ') }}
      </p>
      <div
        v-for="finding in aside"
        :key="finding.id"
        class="aside-row"
      >
        <span><b>{{ finding.title }}</b> <span class="soft">{{ finding.setAside || 'no reason given' }}</span></span><el-button
          link
          type="primary"
          @click="emit('aside', finding, '\u0000')"
        >
          Bring back
        </el-button>
      </div>
    </details>
  </div>
</template>

<style scoped>
.finding {
  display: grid;
  grid-template-columns: 84px 1fr minmax(90px, 200px);
  gap: 10px;
  padding: 8px 4px;
  border-bottom: 1px solid var(--line);
  align-items: start;
}
.finding.selected {
  background: var(--selection);
}
.mark {
  display: flex;
  gap: 7px;
  align-items: center;
  font-weight: 600;
}
.mark i {
  width: 10px;
  height: 10px;
  flex: none;
}
.clash .mark {
  color: var(--over);
}
.clash i {
  background:
    linear-gradient(45deg, transparent 40%, currentColor 40% 60%, transparent 60%),
    linear-gradient(-45deg, transparent 40%, currentColor 40% 60%, transparent 60%);
}
.check .mark,
.asks .mark {
  color: var(--close);
}
.check i {
  border: 2px solid currentColor;
}
.asks i {
  border: 2px dotted currentColor;
  border-radius: 50%;
}
.advice .mark {
  color: var(--ink-soft);
}
.advice i {
  border-left: 3px solid currentColor;
}
.good .mark {
  color: var(--clear);
}
.good i {
  border-radius: 50%;
  background: currentColor;
}
.said p {
  margin: 1px 0 0;
  color: var(--ink-soft);
}
.said p a {
  display: inline-block;
  margin-right: 12px;
}
.title {
  padding: 0;
  color: var(--ink);
  text-align: left;
  white-space: normal;
}
.acts {
  display: grid;
  justify-items: end;
  gap: 3px;
}
.acts small {
  text-align: right;
}
.acts button {
  padding: 4px 10px;
}
.why {
  margin-top: 5px;
}
.rest {
  padding: 8px 4px;
}
summary {
  cursor: pointer;
  color: var(--ink-soft);
}
.aside-row {
  display: flex;
  justify-content: space-between;
  gap: 10px;
}
@media screen and (max-width: 760px) {
  .finding {
    grid-template-columns: 1fr;
  }
  .acts {
    justify-items: start;
  }
  .acts small {
    text-align: left;
  }
}
</style>
