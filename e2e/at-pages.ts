/**
 * A technician at the pages of a slip, by keyboard alone, who goes by what they show: what is asked is answered, what is to
 * be signed is signed, what a run calls hands for is done at the device, and Enter does the rest.
 */
import type { Job, RunShown } from '@plain-slate/api'
import type { Stage } from '@plain-slate/core'
import { endOf } from '@plain-slate/texts'
import type { Locator, Page } from '@playwright/test'
import type { WholeShop } from './bench/whole-shop.ts'
import { actFor } from './jobs/technician.ts'
import { holdStart, title } from './shop.ts'

export type Walk = {
  readonly number: string
  readonly serial: string
  /** What is answered otherwise than usual, by topic, in the page's words. */
  readonly answers?: Readonly<Record<string, string>>
  /** What the row of the route says that is taken, where it is not the best. */
  readonly route?: RegExp
}

/** What is said where nothing else is: the first of these that is among the answers. */
const USUAL = [
  'may go',
  'shown',
  'no',
  'there is none',
  'sound',
  'dry',
  'nothing was tried',
  'its system runs',
  'agreed',
  'tried, no cure',
  'made, and it opens',
  'we do',
  'works',
  'none',
  'done',
  'as promised',
] as const
/** Many at once, where nothing was said of them. */
const AT_ONCE = /^(None of these is on it: |All seven work$|As before: )/
/** So many turns with nothing to do in a row are too many. */
const IDLE_MOST = 150
const TURN_MS = 150
const DEEDS_MOST = 70

export class AtPages {
  readonly #page: Page
  readonly #shop: WholeShop
  readonly #walk: Walk
  readonly #did: string[] = []
  #read = false

  constructor(page: Page, shop: WholeShop, walk: Walk) {
    this.#page = page
    this.#shop = shop
    this.#walk = walk
  }

  get #main() {
    return this.#page.getByRole('main')
  }
  job = () => this.#shop.call<Job>('GET', `/api/slips/${this.#walk.number}/job`)
  async run(): Promise<RunShown | undefined> {
    const { run } = await this.job()
    return run === null ? undefined : this.#shop.run(run)
  }

  /** From page to page until it stands at a stage, at which nothing was done yet; or until the slip is closed. */
  async goes(to: Stage | 'closed'): Promise<void> {
    await this.#main.locator('[data-topic], h1').first().waitFor()
    for (let idle = 0; idle < IDLE_MOST;) {
      if (await this.#isAt(to)) return
      const did = await this.#next()
      idle = did === undefined ? idle + 1 : 0
      if (did !== undefined && this.#did.push(did) > DEEDS_MOST) break
      await this.#page.waitForTimeout(did === undefined ? TURN_MS : 0)
    }
    const at = `${new URL(this.#page.url()).pathname}: ${await title(this.#page).innerText()}`
    throw new Error(`never at ${to}; it stands at ${at}, after\n  ${this.#did.join('\n  ')}`)
  }

  async #isAt(to: Stage | 'closed'): Promise<boolean> {
    if (to !== 'closed') return this.#page.url().endsWith(`/${to}`)
    return (await title(this.#page).innerText()) === 'Handed back and closed'
  }

  /** The one thing that stands next on the page; undefined: it has to be waited for. */
  async #next(): Promise<string | undefined> {
    if ((await this.#main.locator('div[data-state] h1').count()) > 0) return this.#helpsTheRun()
    const did = (await this.#answers()) ?? (await this.starts())
    if (did === undefined && (await this.#awaitsRoute())) return undefined
    return (
      did ??
      (await this.#picks()) ??
      (await this.#chooses()) ??
      (await this.#readsDeep()) ??
      (await this.#enters())
    )
  }

  /** The first open question, or many that have one answer. */
  async #answers(): Promise<string | undefined> {
    for (const [topic, says] of Object.entries(this.#walk.answers ?? {})) {
      const word = this.#main
        .locator(`[data-topic="${topic}"]`)
        .getByRole('button')
        .filter({ hasText: new RegExp(`^\\s*${says}\\s*$`) })
        .and(this.#page.locator(':not([aria-pressed="true"])'))
      if (!(await word.isVisible())) continue
      await word.press('Enter')
      await word.waitFor({ state: 'detached' })
      return `${topic}: ${says}`
    }
    const many = this.#main
      .getByRole('button', { name: AT_ONCE })
      .and(this.#page.locator(':not([aria-disabled="true"])'))
    const open = this.#main
      .locator('.open[data-topic]:visible')
      .filter({ has: this.#page.locator('button:enabled') })
    const topic = await open
      .first()
      .getAttribute('data-topic', { timeout: 50 })
      .catch(() => null)
    if (topic === null) return undefined
    const all = many.first()
    if (await all.isVisible()) {
      const name = await all.innerText()
      await all.press('Enter')
      await all.waitFor({ state: 'detached', timeout: 2000 }).catch(() => undefined)
      return name
    }
    const row = this.#main.locator(`[data-topic="${topic}"]:visible`)
    const words = await row.locator('button:enabled').allInnerTexts()
    const word = USUAL.find((one) => words.includes(one)) ?? words[0]
    if (word === undefined) return undefined
    await row
      .getByRole('button')
      .filter({ hasText: new RegExp(`^${word}$`) })
      .press('Enter')
    await this.#main
      .locator(`.open[data-topic="${topic}"]:visible`)
      .waitFor({ state: 'detached', timeout: 5000 })
      .catch(() => undefined)
    return `${topic}: ${word}`
  }

  /** Holds the start button, where it is offered. */
  async starts(): Promise<string | undefined> {
    const hold = this.#main.getByRole('button', { name: /^Write / })
    if (!(await hold.isVisible()) || !(await hold.isEnabled())) return undefined
    /* It may have begun by a hold before, of which the page hears this very moment. */
    const held = await holdStart(this.#page).then(
      () => true,
      () => false,
    )
    return held ? 'started' : undefined
  }

  /** The row of the route that is to be taken, where the page is one of routes. */
  #row(): Locator | undefined {
    const { route } = this.#walk
    if (route === undefined || !this.#page.url().endsWith('/firmware')) return undefined
    return this.#main
      .locator('[data-route]')
      .filter({ has: this.#page.locator('b', { hasText: route }) })
      .first()
  }

  /** Whether routes are still looked for: another one than it is to take must not be gone on with. */
  async #awaitsRoute(): Promise<boolean> {
    const row = this.#row()
    if (row === undefined) return false
    return (
      !(await row.isVisible()) || (await row.getByRole('button', { disabled: true }).count()) > 0
    )
  }

  async #picks(): Promise<string | undefined> {
    const pick = this.#row()?.getByRole('button', { name: /^Take/ })
    if (pick === undefined || !(await pick.isVisible()) || !(await pick.isEnabled()))
      return undefined
    const name = await pick.innerText()
    await pick.press('Enter')
    await pick.waitFor({ state: 'detached' })
    return name
  }

  /** Among several devices at ports, the one of this slip. */
  async #chooses(): Promise<string | undefined> {
    if (!this.#page.url().endsWith('/readings')) return undefined
    const its = this.#main.locator('.ports button').filter({ hasText: endOf(this.#walk.serial) })
    if (!(await its.isVisible()) || !(await its.isEnabled())) return undefined
    const name = await its.innerText()
    await its.press('Enter')
    await its.waitFor({ state: 'detached' })
    return name
  }

  /** Where it is read and its digests are not: into the mode that shows them, once. */
  async #readsDeep(): Promise<string | undefined> {
    if (this.#read || !this.#page.url().endsWith('/readings')) return undefined
    const { device, look } = await this.job()
    const deep = this.#main.getByRole('button', { name: /for what stands on it$/ })
    const waits = device === null || look?.state === 'looking' || !(await deep.isVisible())
    if (waits || !(await deep.isEnabled())) return undefined
    this.#read = true
    if (device.digests > 0) return undefined
    await deep.press('Enter')
    return 'read where more is shown'
  }

  /** Enter, where the sheet offers what it does; it has done it when the page says something else. */
  async #enters(): Promise<string | undefined> {
    const offered = this.#main.locator('.go button')
    const count = await offered.count()
    if (count === 0 || !(await offered.first().isEnabled())) return undefined
    const before = await this.#main.innerText()
    const name = (await offered.first().innerText()).replace(/\s+/g, ' ')
    await this.#main.focus()
    await this.#page.keyboard.press('Enter')
    for (let turn = 0; turn < 60 && (await this.#main.innerText()) === before; turn += 1)
      await this.#page.waitForTimeout(50)
    return name
  }

  /** What a run asks of hands, done at the device and said on the page. */
  async #helpsTheRun(): Promise<string | undefined> {
    const run = await this.run()
    if (run === undefined) return undefined
    const { serial } = this.#walk
    if (run.state === 'ended') {
      await this.#main.focus()
      await this.#page.keyboard.press('Enter')
      return 'the run has ended'
    }
    if (run.asked === null) {
      const unheard = run.waiting?.mode?.kind === 'system' && run.waiting.seen === null
      if (!unheard) return undefined
      await this.#shop.hands({ kind: 'confirm', serial })
      await this.#shop.hands({ kind: 'permit', serial, given: true })
      return 'its key, its permission'
    }
    const { ask, command } = run.asked
    await this.#main.getByRole('button', { name: /^Done/ }).waitFor()
    const act = await actFor(this.#shop, { ask, to: run.way?.to.id }, serial)
    if (act !== undefined) await this.#shop.hands(act)
    await this.#page.keyboard.press('.')
    for (let turn = 0; turn < 40; turn += 1) {
      if ((await this.run())?.asked?.command !== command) break
      await this.#page.waitForTimeout(TURN_MS)
    }
    return `hands: ${ask}`
  }
}
