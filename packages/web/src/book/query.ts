/** The Book's filter in the address. */
import { computed } from 'vue'
import { useRoute } from 'vue-router'

/** The filter as texts, and as the input of the book's routes. */
export function useBookQuery() {
  const route = useRoute()
  const text = (key: string) => {
    const value = route.query[key]
    return typeof value === 'string' ? value : ''
  }
  const query = computed(() => ({
    act: text('act'),
    slip: text('slip'),
    by: text('by'),
    before: text('before'),
  }))
  const input = computed(() => ({
    query: Object.fromEntries(Object.entries(query.value).filter(([, value]) => value !== '')),
  }))
  return { query, input }
}
