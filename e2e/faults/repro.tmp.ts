import setup from '../setup.ts'
import { cloneTemplate } from '../bench.ts'
import { diceOf } from './dice.ts'
import { FaultShop } from './fault-shop.ts'
import { KINDS } from './kinds.ts'
import { playRound } from './round.ts'
const stop = await setup()
const shop = new FaultShop(await cloneTemplate('demo'), process.env['E2E_SUPERUSER_URL'] ?? '')
await shop.open()
const only = (process.env['ONLY'] ?? '').split(';').filter(Boolean)
for (const seed of (process.env['SEEDS'] ?? '').split(',').map(Number)) {
  const dice = diceOf(seed)
  const kinds =
    only.length > 0
      ? only.map((n) => KINDS.find((k) => k.name === n)!)
      : Array.from({ length: 6 }, () => dice.one(KINDS))
  const t = Date.now()
  const out = await playRound(shop, seed, kinds)
  console.log(seed, Date.now() - t, kinds.map((k) => k.name).join('; '), JSON.stringify(out.lost))
  if (out.lost.length > 0 && !process.env['GO']) {
    const runs = await shop.whole.call<any[]>('GET', '/api/runs')
    for (const r of runs.slice(0, 3)) {
      const run = await shop.whole.call<any>('GET', `/api/runs/${r.id}`)
      console.log(
        run.id,
        run.state,
        run.startedAt,
        JSON.stringify(run.why),
        run.step,
        run.parts
          .map((p: any) => `${p.partition}:${p.kept}/${p.bytes}${p.readBack ? 'ok' : ''}`)
          .join(' '),
      )
      console.log(
        JSON.stringify(
          shop
            .journalOf(r.id)
            .map(
              (e: any) =>
                `${e.kind[0]}${e.command}${e.kind === 'intend' ? '@' + e.epoch : '=' + e.evidence}`,
            ),
        ),
      )
    }
    break
  }
}
await shop.close()
await stop()
