/**
 * The clock of what is elapsed: leases, silence, uploads that stand still. It begins near the real time and goes on by the
 * machine's time since its boot, so that a clock that is set on or back ends no lease and makes none endless. A function of
 * the database, since several servers ask it; the start command gives it the machine's own (`scripts/database/steady.ts`).
 */
export const STEADY = 'steady_now()'
