import type { Knex } from 'knex'
import * as shop from './001-shop.ts'
import * as people from './002-people.ts'
import * as sessions from './003-sessions.ts'
import * as book from './004-book.ts'
import * as personalTexts from './005-personal-texts.ts'
import * as slips from './006-slips.ts'
import * as bench from './007-bench.ts'
import * as bookChecks from './008-book-checks.ts'
import * as shelf from './009-shelf.ts'
import * as devices from './010-devices.ts'
import * as runs from './011-runs.ts'
import * as job from './012-job.ts'
import * as shelfTold from './013-shelf-told.ts'
import * as runsTold from './014-runs-told.ts'
import * as wordsToRuns from './015-words-to-runs.ts'
import * as refusals from './016-refusals.ts'
import * as shelfChanges from './017-shelf-changes.ts'
import * as looksAreJobs from './018-looks-are-jobs.ts'
import * as plansAndTallies from './019-plans-and-tallies.ts'
import * as evidenceHasATime from './020-evidence-has-a-time.ts'
import * as modesHaveKinds from './021-modes-have-kinds.ts'
import * as devicesInFull from './022-devices-in-full.ts'
import * as houseRules from './023-house-rules.ts'
import * as provenOnce from './024-packages-are-proven-once.ts'
import * as computersTell from './025-computers-tell.ts'
import * as decisions from './026-decisions.ts'
import * as families from './027-families.ts'
import * as plansDraw from './028-plans-draw.ts'
import * as runsHung from './029-runs-hung.ts'
import * as laidBenches from './030-laid-benches.ts'
import * as keysOfDepots from './031-keys-of-depots.ts'
import * as steadyClock from './032-steady-clock.ts'
import * as copies from './033-copies.ts'
import * as copyFaults from './034-copy-faults.ts'
import * as runsOfPermits from './035-runs-of-permits.ts'
import * as wordsAgainstRuns from './036-words-against-runs.ts'
import * as shellTokens from './037-shell-tokens.ts'
import * as whyStopped from './038-why-a-run-stopped.ts'
import * as readingsBack from './039-readings-taken-back.ts'
import * as permits from './040-permits.ts'

const ALL: Readonly<Record<string, Knex.Migration>> = {
  '001-shop': shop,
  '002-people': people,
  '003-sessions': sessions,
  '004-book': book,
  '005-personal-texts': personalTexts,
  '006-slips': slips,
  '007-bench': bench,
  '008-book-checks': bookChecks,
  '009-shelf': shelf,
  '010-devices': devices,
  '011-runs': runs,
  '012-job': job,
  '013-shelf-told': shelfTold,
  '014-runs-told': runsTold,
  '015-words-to-runs': wordsToRuns,
  '016-refusals': refusals,
  '017-shelf-changes': shelfChanges,
  '018-looks-are-jobs': looksAreJobs,
  '019-plans-and-tallies': plansAndTallies,
  '020-evidence-has-a-time': evidenceHasATime,
  '021-modes-have-kinds': modesHaveKinds,
  '022-devices-in-full': devicesInFull,
  '023-house-rules': houseRules,
  '024-packages-are-proven-once': provenOnce,
  '025-computers-tell': computersTell,
  '026-decisions': decisions,
  '027-families': families,
  '028-plans-draw': plansDraw,
  '029-runs-hung': runsHung,
  '030-laid-benches': laidBenches,
  '031-keys-of-depots': keysOfDepots,
  '032-steady-clock': steadyClock,
  '033-copies': copies,
  '034-copy-faults': copyFaults,
  '035-runs-of-permits': runsOfPermits,
  '036-words-against-runs': wordsAgainstRuns,
  '037-shell-tokens': shellTokens,
  '038-why-a-run-stopped': whyStopped,
  '039-readings-taken-back': readingsBack,
  '040-permits': permits,
}

/** The migrations in their order, from code instead of a folder, so that no loader is needed. */
export const migrationSource: Knex.MigrationSource<string> = {
  getMigrations: () => Promise.resolve(Object.keys(ALL)),
  getMigrationName: (name) => name,
  getMigration: (name) => {
    const migration = ALL[name]
    if (migration === undefined) throw new Error(`no such migration: ${name}`)
    return Promise.resolve(migration)
  },
}
