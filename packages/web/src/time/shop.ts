/** The shop's clock in the page: the server's shop time at the last fetch, going on by itself. */
import { useIntervalFn } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { useRead } from '../server/query.ts'
import { clockTime, whenWords } from './words.ts'

/** The shop, its now (ms, ticking each second) and moments in its zone. */
export function useShop() {
  const read = useRead('shop')
  const offset = ref(0)
  const now = ref(Date.now())
  watch(
    read.data,
    (shop) => {
      if (shop !== undefined) offset.value = Date.parse(shop.now) - Date.now()
    },
    { immediate: true },
  )
  useIntervalFn(() => (now.value = Date.now() + offset.value), 1000, { immediateCallback: true })
  watch(offset, (by) => (now.value = Date.now() + by), { immediate: true })
  const zone = computed(() => read.data.value?.zone ?? 'UTC')
  return {
    shop: read.data,
    now,
    zone,
    /** "16:30" of an ISO moment. */
    time: (iso: string) => clockTime(Date.parse(iso), zone.value),
    /** "today 16:30" of an ISO moment. */
    when: (iso: string) => whenWords(Date.parse(iso), now.value, zone.value),
  }
}
