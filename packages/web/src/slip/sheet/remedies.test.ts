// @vitest-environment jsdom
/** What is tried, as a page shows it: in which order, what was tried, what is held back. */
import { flushPromises } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { mounted } from '../../testing/mounted.ts'
import { job, line, slip } from '../testing/job.ts'
import { posted } from '../testing/sheet.ts'
import Remedies from './Remedies.vue'

const house = { transfer: 'again' } as const
const at = '/slips/0417/write'
async function shown(more: object = {}, said: ReturnType<typeof line>[] = []) {
  const props = { job: job('write', { lines: said }), trouble: 'transfer', house, ...more }
  const answer = (path: string) => (path.endsWith('0417') ? slip() : props.job)
  return mounted(Remedies, props, { at, answer })
}
const tries = async (...asked: Parameters<typeof shown>) =>
  (await shown(...asked)).shown.findAll('[data-remedy]').map((one) => {
    const is = one.classes().find((name) => ['tried', 'held'].includes(name)) ?? ''
    return `${one.attributes('data-remedy') ?? ''} ${is}`.trim()
  })

describe('what is tried', () => {
  it('follows what was tried, of this trouble', async () => {
    const usual = ['again', 'cable', 'fetch-again']
    expect(await tries()).toEqual(usual)
    expect(await tries({}, [line('tried.transfer.cable', 'no-cure')])).toEqual([
      'again',
      'fetch-again',
      'cable tried',
    ])
    expect(await tries({}, [line('tried.unseen.cable', 'no-cure')])).toEqual(usual)
    expect(await tries({}, [line('tried.transfer.cable', 'untried')])).toEqual(usual)
    expect(await tries({ lostBefore: true })).toEqual(['cable', 'fetch-again', 'again tried'])
    expect(await tries({ trouble: 'loop' })).toEqual([])
  })

  it('holds back what would cut the power of a single copy', async () => {
    expect(await tries({ inDoubt: true })).toEqual(['again', 'cable', 'fetch-again held'])
    expect((await shown({ inDoubt: true })).shown.text()).toContain('Power and link stay')
  })

  it('says the chance, the cost and what they rest on', async () => {
    const { shown: page } = await shown()
    expect(page.text()).toContain('cured 55 of 100, 1 minute; from 74 troubles')
    expect(page.text()).toContain('from its maker’s word')
  })

  it('puts down what was tried, and says when nothing is left', async () => {
    const { shown: page, asked } = await shown()
    await page.find('[data-remedy="again"] button').trigger('click')
    await flushPromises()
    expect(posted(asked, '/lines')[0]?.body).toMatchObject({
      lines: [{ topic: 'tried.transfer.again', answer: 'no-cure' }],
    })
    const all = ['again', 'cable', 'fetch-again'].map((one) =>
      line(`tried.transfer.${one}`, 'no-cure'),
    )
    expect((await shown({}, all)).shown.text()).toContain('All that its family names was tried')
  })
})
