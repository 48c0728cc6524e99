import type { Knex } from 'knex'

type Step = Readonly<Record<string, unknown>> & { readonly kind: string }

/** The one family there was: it wrote in its loader and started into its normal mode. */
const WRITING = 'loader'
const SYSTEM = 'normal'

/**
 * A command says the mode in which it is done and a step the mode it leads to, since a family names its modes
 * itself. What was kept before is of the one family there was. A look says the mode it goes into.
 */
export async function up(knex: Knex): Promise<void> {
  const runs = (await knex('runs').select('id', 'plan', 'commands')) as {
    id: string
    plan: { steps: Step[] }
    commands: Step[]
  }[]
  for (const { id, plan, commands } of runs)
    await knex('runs')
      .where({ id })
      .update({
        plan: JSON.stringify({ ...plan, steps: plan.steps.map(stepNow) }),
        commands: JSON.stringify(commands.map(commandNow)),
      })
  const taken = (await knex('slip_plans').select('id', 'made')) as {
    id: string
    made: { plan: { steps: Step[] } }
  }[]
  for (const { id, made } of taken) {
    const plan = { ...made.plan, steps: made.plan.steps.map(stepNow) }
    await knex('slip_plans')
      .where({ id })
      .update({ made: JSON.stringify({ ...made, plan }) })
  }
  await knex('looks').delete()
  await knex.schema.alterTable('looks', (table) => table.text('into'))
}

function stepNow(step: Step): Step {
  switch (step.kind) {
    case 'meet':
    case 'write':
    case 'read-back':
      return { ...step, mode: WRITING }
    case 'restart':
      return { ...step, to: WRITING }
    case 'first-start':
      return { ...step, to: SYSTEM }
    case 'enter': {
      const way = step['way'] as { readonly from: string; readonly to: string }
      return { ...step, way: { ...way, from: [way.from] }, answers: way.to !== 'off' }
    }
    default:
      return step
  }
}

function commandNow(command: Step): Step {
  if (command.kind === 'put' || command.kind === 'digest') return { ...command, mode: WRITING }
  const starts = command.kind === 'restart' && command['to'] === SYSTEM
  return starts ? { ...command, first: 'kept' } : command
}

/** What was added is not read by what was before; a look that is under way is asked again. */
export async function down(knex: Knex): Promise<void> {
  await knex('looks').delete()
  await knex.schema.alterTable('looks', (table) => table.dropColumn('into'))
}
