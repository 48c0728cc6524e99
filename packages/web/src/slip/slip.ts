/** The slip that the address names. */
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import { useRead } from '../server/query.ts'

/** Its number, its head, its history; all parts of the page share what is fetched. */
export function useSlip() {
  const route = useRoute()
  const number = computed(() => String(route.params['number'] ?? ''))
  const input = () => ({ params: { number: number.value } })
  const enabled = () => number.value !== ''
  return {
    number,
    slip: useRead('slip', input, { enabled }),
    history: useRead('slipHistory', input, { enabled }),
  }
}
