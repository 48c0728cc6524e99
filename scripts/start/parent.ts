/**
 * `npm start` puts npm, and perhaps a shell, between the terminal and us. When npm is killed so hard
 * that it cannot pass it on, we would go on alone: so we watch it and end in order.
 */
import { commandOf, isAlive, lifeOf, parentOf } from '../process/alive.ts'
import type { Life } from '../process/alive.ts'

const LOOK_EVERY_MS = 300
/** npm, a shell, a wrapper: no more stands between. */
const ANCESTORS = 4

/** Calls `gone` once when the npm that started us has died; does nothing without one. */
export function watchNpm(env: NodeJS.ProcessEnv, gone: () => void): () => void {
  const npm = env['npm_lifecycle_event'] === 'start' ? npmAbove() : []
  if (npm.length === 0) return () => undefined
  const timer = setInterval(() => {
    if (npm.every(isAlive)) return
    clearInterval(timer)
    gone()
  }, LOOK_EVERY_MS)
  return () => clearInterval(timer)
}

/** Our ancestors up to and with npm; empty when npm is not among the nearest. */
function npmAbove(): Life[] {
  const lives: Life[] = []
  let pid = process.pid
  for (let step = 0; step < ANCESTORS; step += 1) {
    pid = parentOf(pid)
    const life = lifeOf(pid)
    if (life === undefined || pid <= 1) return []
    lives.push(life)
    if (/\bnpm\b/.test(commandOf(pid))) return lives
  }
  return []
}
