/**
 * Long walks of acts that nobody planned, with the laws asked after each: by ranges of seeds that add up over several runs.
 * `LAW_WALKS=n` and `LAW_SEED=n` say which, `LAW_MINUTES=n` when no further one is begun. Acts, states that were met and the
 * chances that each law had are printed; a walk that broke a law is printed as acts that can be done again.
 */
import { cloneTemplate } from '../../e2e/bench.ts'
import { LawShop } from '../../e2e/laws/law-shop.ts'
import { LAWS } from '../../e2e/laws/laws.ts'
import { failureTold, newTally, playWalks, tallyTold } from '../../e2e/laws/walks.ts'
import setup from '../../e2e/setup.ts'
import type { Row } from './row.ts'

const WALKS = Number(process.env['LAW_WALKS'] ?? 2000)
const SEED = Number(process.env['LAW_SEED'] ?? 20261202)
const MINUTES = Number(process.env['LAW_MINUTES'] ?? 120)
const ACTS = 80
const COPIES = 16
/** One walk in so many may kill something or set the clock on. */
const HARD_EVERY = 10
/** A shop is begun anew after so many walks: slips and runs of the day add up in it. */
const WALKS_A_SHOP = 100

export async function laws(): Promise<readonly Row[]> {
  const stop = await setup()
  const tally = newTally()
  const late = Date.now() + MINUTES * 60_000
  const faults: string[] = []
  for (let first = 0; first < WALKS && Date.now() < late; first += WALKS_A_SHOP) {
    const shop = new LawShop(
      await cloneTemplate('demo'),
      process.env['E2E_SUPERUSER_URL'] ?? '',
      COPIES,
    )
    await shop.open()
    const seeds = Array.from(
      { length: Math.min(WALKS_A_SHOP, WALKS - first) },
      (_, n) => SEED + first + n,
    )
    for (const seed of seeds)
      if (Date.now() < late)
        await playWalks(
          shop,
          [seed],
          { acts: ACTS, port: 'P1', copies: COPIES, hard: (one) => one % HARD_EVERY === 0 },
          tally,
        )
    faults.push(...shop.faults)
    await shop.close()
  }
  await stop()
  console.log([tallyTold(tally), ...tally.failed.map(failureTold), ...faults].join('\n'))
  return LAWS.map(({ number, says }) => ({
    what: `law ${number}: ${says} (${tally.walks} walks of up to ${ACTS} acts from seed ${SEED})`,
    measured: `${tally.chances.get(says) ?? 0} chances, broken ${tally.failed.filter(({ broken }) => broken.law.says === says).length} times`,
    limit: '0 times',
  }))
}
