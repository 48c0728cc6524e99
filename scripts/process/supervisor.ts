/**
 * Keeps processes running: a dead one is started again; after five deaths within a minute it stops
 * trying and says so. Knows nothing of what a process is for; time and timers are passed in.
 */
export type Service = {
  readonly name: string
  /** Starts it and answers when it is ready; `died` must be called once when it ends by itself. */
  readonly start: (died: (how: string) => void) => Promise<Handle>
}
export type Handle = { readonly stop: () => Promise<void> }

export type Supervision = {
  /** Ends the service for good. */
  readonly stop: () => Promise<void>
}

export type Watch = {
  readonly now: () => number
  readonly pause: (ms: number) => Promise<void>
  readonly say: (sentence: string) => void
  /** Why nothing can stay up now, as a sentence: a full disk. It is waited for, and no death counts meanwhile. */
  readonly hindered?: () => string | undefined
  /** Called once when a service died too often. */
  readonly gaveUp: (name: string) => void
}

/** This many deaths within the window, and it is no accident any more. */
export const DEATHS_ALLOWED = 5
export const DEATH_WINDOW_MS = 60_000
const RESTART_PAUSE_MS = 300
/** Between two looks whether what hinders everything is over. */
const HINDERED_PAUSE_MS = 2000

/** Starts the service (throws when its first start fails) and keeps it until stopped. */
export async function supervise(service: Service, watch: Watch): Promise<Supervision> {
  const deaths: number[] = []
  let stopped = false
  let handle: Handle | undefined
  let restarting: Promise<void> = Promise.resolve()

  const died = (how: string): void => {
    if (stopped) return
    handle = undefined
    const why = watch.hindered?.()
    if (why !== undefined) {
      watch.say(`The ${service.name} ended (${how}). ${why}`)
      restarting = again()
      return
    }
    deaths.push(watch.now())
    if (tooOften(deaths, watch.now())) {
      watch.say(`The ${service.name} ended ${DEATHS_ALLOWED} times within a minute (${how}).`)
      watch.gaveUp(service.name)
      return
    }
    watch.say(`The ${service.name} ended (${how}) and is started again.`)
    restarting = again()
  }
  const again = async (): Promise<void> => {
    await watch.pause(RESTART_PAUSE_MS)
    while (!stopped && watch.hindered?.() !== undefined) await watch.pause(HINDERED_PAUSE_MS)
    if (stopped) return
    try {
      handle = await service.start(died)
    } catch (error) {
      died(error instanceof Error ? error.message : 'it did not start')
    }
  }
  handle = await service.start(died)
  return {
    async stop() {
      stopped = true
      await restarting
      await handle?.stop()
    },
  }
}

/** True when the newest deaths fill the window. */
export function tooOften(deaths: readonly number[], now: number): boolean {
  return deaths.filter((at) => now - at < DEATH_WINDOW_MS).length >= DEATHS_ALLOWED
}
