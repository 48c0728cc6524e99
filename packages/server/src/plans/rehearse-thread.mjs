/** Begins the thread that rehearses: our sources run as they are, in a thread too. */
import { register } from 'tsx/esm/api'

register()
await import('./rehearse-worker.ts')
