// @vitest-environment jsdom
/** What stands beside a stage: findings with their numbers and remedies, and what a plan asks for. */
import type { PlanShown, RunShown, Seen } from '@plain-slate/api'
import { flushPromises } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { mounted } from '../../testing/mounted.ts'
import FindingList from '../sheet/FindingList.vue'
import PlanMargin from './PlanMargin.vue'
import WriteMargin from './WriteMargin.vue'
import { numbersOf } from '../sheet/routes.ts'
import { LOADER, NORMAL, job, plan, planPage, run, slip } from '../testing/job.ts'

const at = '/slips/0417/firmware'
const { device } = job('plan')
if (device === null) throw new Error('no device')

describe('numbers of findings', () => {
  const finding = (code: string, more: object = {}) => ({
    rule: 'state.loader',
    verdict: 'fits-if' as const,
    code,
    facts: {},
    marks: [],
    remedy: null,
    overruled: 'nobody' as const,
    ...more,
  })
  it('tie a finding in two routes together, and leave plain ones without', () => {
    const first = finding('fit.state.loader.least.raise')
    const plain = finding('fit.state.floor.fits', { verdict: 'fits' })
    const marked = finding('fit.state.floor.rises', {
      verdict: 'fits',
      marks: [{ kind: 'irreversible' }],
    })
    const number = numbersOf([{ findings: [first, plain] }, { findings: [first, marked] }])
    expect([number(first), number(plain), number(marked)]).toEqual([1, undefined, 2])
    expect(number({ ...first, facts: { here: 6 } })).toBe(undefined)
  })

  it('stand beside the claim, with the remedy that acts', async () => {
    const findings = [
      finding('fit.state.battery.charge', {
        facts: { here: 24, needed: 44, margin: 20 },
        remedy: { kind: 'charge' },
      }),
      finding('fit.package.here.fetch', { facts: { title: 'x' }, remedy: { kind: 'fetch' } }),
    ]
    const { shown } = await mounted(FindingList, { findings, number: () => 3 }, { at })
    expect(shown.find('.told').text()).toBe('3')
    const links = shown.findAll('a').map((one) => one.attributes('href'))
    expect(links).toEqual(['/slips/0417/ready', '/shelf'])
    expect(shown.text()).toContain('Battery 24 %, needs 44 % with 20 % left: charge it first')
    const there = await mounted(FindingList, { findings }, { at: '/slips/0417/ready' })
    expect(there.shown.findAll('a').map((one) => one.attributes('href'))).toEqual(['/shelf'])
  })

  it('lead to the question that is to be answered, at the stage that asks it', async () => {
    const asks = (topic: string) =>
      finding('fit.owner.account.asked', { facts: {}, remedy: { kind: 'ask', topic } })
    const linked = async (topic: string, from = at) => {
      const { shown } = await mounted(FindingList, { findings: [asks(topic)] }, { at: from })
      const link = shown.find('a')
      return link.exists() ? [link.attributes('href'), link.text()] : []
    }
    const account = '/slips/0417/intake#ask-owner.account'
    expect((await linked('owner.account'))[0]).toBe(account)
    expect((await linked('owner.account', '/slips/0417/intake'))[0]).toBe(account)
    expect(await linked('ready.accounts')).toEqual([
      '/slips/0417/ready#ask-ready.accounts',
      'Ask, and put the answer down at Ready',
    ])
    expect(await linked('survive', '/slips/0417/intake')).toEqual([])
  })

  it('offers to overrule a rule where that helps, to who may, and nothing beside one that is final', async () => {
    const region = finding('fit.identity.region.not', {
      verdict: 'does-not-fit',
      rule: 'identity.region',
      facts: { here: 'HI', wanted: 'EX' },
      overruled: 'lead',
    })
    const board = finding('fit.identity.board.not', {
      verdict: 'does-not-fit',
      rule: 'identity.board',
      facts: { here: 'r4', wanted: 'r5' },
    })
    const text = async (
      findings: readonly object[],
      role: 'lead' | 'technician' = 'lead',
      of: string | undefined = 'a package',
    ) => {
      const props = of === '' ? { findings } : { findings, package: of }
      return (await mounted(FindingList, props, { at, role })).shown.text()
    }
    expect(await text([region])).toContain('Overrule this rule')
    expect(await text([region], 'technician')).toContain('A lead may overrule this')
    for (const none of [await text([region, board]), await text([region], 'lead', '')])
      expect(none).not.toMatch(/overrule/i)
  })

  it('folds what merely holds away and counts it, and shows it where nothing else is to be said', async () => {
    const first = finding('fit.package.here.fetch', {
      facts: { title: 'x' },
      remedy: { kind: 'fetch' },
    })
    const plain = finding('fit.state.floor.fits', {
      verdict: 'fits',
      facts: { here: 5, generation: 6 },
    })
    const listed = async (findings: readonly object[]) =>
      (await mounted(FindingList, { findings }, { at })).shown
    const both = await listed([first, plain, plain])
    expect(both.find('summary').text()).toBe('2 more rules hold')
    expect(both.findAll('details .finding')).toHaveLength(2)
    expect(both.find('details').attributes('open')).toBeUndefined()
    expect((await listed([plain])).find('details').attributes('open')).toBeDefined()
    expect((await listed([first])).find('details').exists()).toBe(false)
  })
})

describe('beside a plan', () => {
  const notes = async (more: Partial<PlanShown> = {}, battery: number | null = 71) => {
    const answers = {
      job: job('plan', { device: { ...device, battery } }),
      ...planPage(plan(more)),
    }
    const answer = (path: string) => answers[path.endsWith('/job') ? 'job' : 'plan']
    const { shown } = await mounted(PlanMargin, {}, { at: '/slips/0417/plan', answer })
    await flushPromises()
    return shown.findAll('.note').map((one) => one.text())
  }

  it('says what is there of the charge and what is needed, and for what', async () => {
    const [battery] = await notes()
    expect(battery).toContain('Battery 71 %, needs 44 %')
    expect(battery).toContain('What 26 min draw at the most, 3 restarts among them')
    expect((await notes({ needs: 50 }))[0]).toContain('needs 50 %')
    expect((await notes({ needs: 60, floor: 60 }))[0]).toContain('begins nothing under 60 %')
    expect((await notes({ needs: 60, floor: 40 }))[0]).not.toContain('begins nothing')
    expect((await notes({}, 60))[0]).toContain('Battery 60 %')
    expect((await notes({}, null))[0]).toContain('Needs 44 % of charge')
    expect((await notes({ ownRuns: 2 }))[0]).toBe(battery)
  })

  it('says where the way back is and how long it stays', async () => {
    expect((await notes())[1]).toContain('H2.0ZC.r4, proven. It stays open until step 1 of 1.')
    expect((await notes({ wayBack: null }))[1]).toContain('There is no way back')
    expect((await notes({ needs: 50 }))[1]).toBe((await notes())[1])
  })

  it('says whose figures the time is from', async () => {
    expect((await notes())[2]).toContain('31 own writes')
    expect((await notes({ ownRuns: 0 }))[2]).toContain('the family’s figures')
  })
})

describe('the device beside a run', () => {
  const SEEN: Seen = {
    serial: 'TRN4490077F31',
    model: 'BRAK-H2K',
    board: null,
    build: null,
    mode: LOADER,
    battery: 71,
    loaderVersion: null,
  }
  async function told(atPort: Seen | null, more: Partial<RunShown> = {}) {
    const shown = run(more)
    const port = {
      name: 'P2',
      bench: null,
      way: null,
      ours: false,
      cable: 'C',
      note: '',
      word: 'hands-off',
    } as const
    const rest = { seen: atPort, odd: null, look: null, slip: null, run: null }
    const nothing = { cables: [], computers: [], watched: true, simulated: true }
    const bench = { ports: [{ ...port, ...rest }], ...nothing }
    const answer = (path: string): object => {
      if (path.includes('/runs/')) return shown
      if (path.endsWith('/bench')) return bench
      return path.endsWith('/0417') ? slip() : job('write', { run: shown.id })
    }
    const made = await mounted(WriteMargin, {}, { at: '/slips/0417/write', answer })
    await made.refetched()
    const claim = made.shown.find('[data-claim="device"]')
    return claim.exists() ? claim.find('p').text() : undefined
  }

  it('is told as it is seen: its mode, its charge where the mode shows it, and whose it is', async () => {
    expect(await told(SEEN)).toBe('the loader · charge 71 % · …7F31 as on the slip')
    expect(await told({ ...SEEN, battery: null })).toContain('charge not shown here')
    expect(await told({ ...SEEN, mode: NORMAL })).toContain('normal mode')
    expect(await told({ ...SEEN, serial: 'TRN4490081C04' })).toContain(
      '…1C04 is not the device of this slip',
    )
    expect(await told({ ...SEEN, board: 'r5' })).toBe(await told(SEEN))
    expect(await told(null)).toBeUndefined()
  })

  it('is told by the run while that waits for it: what was seen at its port is of before', async () => {
    expect(await told(SEEN, { waiting: { mode: LOADER, seen: null } })).toBe(
      'Nothing answers at P2.',
    )
    const seen = { ...SEEN, mode: NORMAL }
    expect(await told(SEEN, { waiting: { mode: LOADER, seen } })).toContain('normal mode')
  })
})
