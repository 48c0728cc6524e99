/** Looking at a slip's device: asked for here; what it finds comes with the job's news when it ends. */
import { useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import type { Trouble } from '../../server/call.ts'
import { troubleOf } from '../../server/call.ts'
import { renew, useChange } from '../../server/query.ts'
import { useJob } from '../job.ts'

export function useLook() {
  const client = useQueryClient()
  const { job, params } = useJob()
  const read = useChange('jobRead')
  const last = computed(() => job.data.value?.look ?? undefined)
  const looking = computed(() => read.isPending.value || last.value?.state === 'looking')
  /** Why the last look found nothing, or could not be asked for. */
  const trouble = computed<Trouble | undefined>(() => {
    if (read.error.value !== null) return troubleOf(read.error.value)
    return looking.value ? undefined : (last.value?.trouble ?? undefined)
  })
  async function look(port: string, deep: boolean) {
    if (looking.value) return
    const input = { params: params.value, body: { port, deep } }
    await read.mutateAsync(input).catch(() => undefined)
    renew(client, 'slip')
  }
  return { look, looking, trouble }
}
