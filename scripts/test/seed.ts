/** The seed of every property test; printed by the test command, changed with SEED=n. */
export const SEED = Number(process.env['SEED'] ?? 20261015)
