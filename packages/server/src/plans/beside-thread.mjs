/** Begins the thread beside: our sources run as they are, in a thread too. */
import { register } from 'tsx/esm/api'

register()
await import('./beside-worker.ts')
