/** What the Bench is asked for, in the address: the port, what is wanted, the package that is planned. */
import type { Intent } from '@plain-slate/core'
import { INTENTS } from '@plain-slate/core'
import { computed } from 'vue'
import { useRoute, useRouter } from 'vue-router'

/** The port of this page and what is wanted of its device; `change` writes to the address. */
export function usePort() {
  const route = useRoute()
  const router = useRouter()
  const text = (value: unknown) => (typeof value === 'string' ? value : '')
  const port = computed(() => text(route.params['port']))
  const intent = computed<Intent>(
    () => INTENTS.find((one) => one === text(route.query['intent'])) ?? 'update',
  )
  const keepData = computed(() => text(route.query['keep']) !== 'no')
  const pack = computed(() => text(route.query['package']))
  const address = (part: Readonly<Record<string, string>>) => {
    const next = Object.entries({ ...route.query, ...part }).filter(([, value]) => value !== '')
    return { path: `/bench/${port.value}`, query: Object.fromEntries(next) }
  }
  const change = (part: Readonly<Record<string, string>>) => void router.replace(address(part))
  return { port, intent, keepData, pack, address, change }
}
