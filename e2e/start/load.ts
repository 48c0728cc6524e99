/** A machine that is busy with something else: processes that only count, and one that writes and syncs. */
import { spawn } from 'node:child_process'
import { rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

/** How the writer writes: MiB before it syncs, and the seconds it rests after. */
export type Writer = { readonly mib: number; readonly rest: number }
const NEVER_RESTS: Writer = { mib: 64, rest: 0 }

/** Begins them; `end` ends them, and takes away what was written. */
export function busyMachine(
  processes: number,
  { mib, rest }: Writer = NEVER_RESTS,
): { readonly end: () => void } {
  const file = join(tmpdir(), `plain-slate-load-${process.pid}.bin`)
  const sync = `while :; do dd if=/dev/zero of=${file} bs=1M count=${mib} conv=fsync; sync; sleep ${rest}; done`
  const children = [
    ...Array.from({ length: processes }, () => spawn(process.execPath, ['-e', 'for (;;);'])),
    spawn('sh', ['-c', sync], { stdio: 'ignore', detached: true }),
  ]
  return {
    end() {
      for (const child of children) child.kill('SIGKILL')
      const writer = children.at(-1)?.pid
      /* The shell's own child writes: the whole group goes. */
      try {
        if (writer !== undefined) process.kill(-writer, 'SIGKILL')
      } catch {
        /* It is gone already. */
      }
      rmSync(file, { force: true })
    },
  }
}
