<script lang="ts">
/** How the copies of the shop stand, in a sentence. */
</script>

<script setup lang="ts">
import type { CopiesShown } from '@plain-slate/api'
import { sayWithGaps } from '@plain-slate/texts'
import { computed } from 'vue'
import { useBrowserStore } from '../base/browser.ts'
import { useSay } from '../base/said.ts'

const props = defineProps<{ copies: CopiesShown }>()
const say = useSay()
/** Real time, as the machine's own: the shop's clock may be a demo's. */
const moment = (at: string) =>
  new Date(at).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' })
const browser = useBrowserStore()
function whyWords(): string {
  const why = props.copies.last?.why ?? undefined
  return why === undefined
    ? ''
    : sayWithGaps(browser.language, `copies.why.${why.fault}`, why.facts)
}
const words = computed(() => {
  const { folder, good, trouble } = props.copies
  if (folder === null) return say('copies.none')
  if (trouble === 'failed') return say('copies.failed', { folder, why: whyWords() })
  if (good === null) return say(trouble === 'old' ? 'copies.never' : 'copies.soon', { folder })
  const at = moment(good.at)
  return trouble === 'old'
    ? say('copies.old', { folder, at })
    : say('copies.well', { folder, at, entries: good.entries, mib: good.mib })
})
</script>

<template>
  <p
    :class="{ amiss: copies.trouble !== 'none' }"
    :role="copies.trouble === 'none' ? undefined : 'status'"
    data-claim="copies"
    :data-trouble="copies.trouble"
  >
    {{ words }}
  </p>
</template>
