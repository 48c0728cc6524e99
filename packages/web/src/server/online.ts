/** Whether the server answers, as the whole page shares it: the news say so. */
import { ref } from 'vue'

export const online = ref(true)
