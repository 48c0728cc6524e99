/** The wall while it is written: each brick as far as it is kept, with its tick when it was read back. */
import type { RunShown } from '@plain-slate/api'
import { restingFate } from '@plain-slate/core'
import { mib } from '@plain-slate/texts'
import type { Say } from '@plain-slate/texts'
import type { BrickShown, CourseShown } from '../../pictures/Wall.vue'

type Drawn = Pick<RunShown, 'wall' | 'parts' | 'got' | 'size' | 'steps' | 'step' | 'scale'>

/** One course: the device as it stands now. */
export function liveCourse(say: Say, run: Drawn): CourseShown {
  const under = run.steps.find(({ number }) => number === run.step)
  const erased = run.steps.flatMap(({ kind, facts }) => (kind === 'erase' ? [facts.partition] : []))
  return {
    title: '',
    bricks: run.wall.map(({ name, role, bytes }): BrickShown => {
      const parts = run.parts.filter(({ partition }) => partition === name)
      const about = { partition: name, mib: mib(bytes) }
      if (parts.length === 0) {
        const fate = erased.includes(name) ? 'erased' : restingFate(role, 'left')
        const says = say('brick.says', { ...about, fate: say(`brick.${fate}`) })
        return { partition: name, fate, label: name, says }
      }
      const all = parts.reduce((sum, part) => sum + part.bytes, 0)
      const now = under?.kind === 'write' && under.facts.partition === name ? run.got : 0
      const kept = parts.reduce((sum, part) => sum + part.kept, 0)
      const done = Math.min(1, (kept + now) / all)
      const readBack = parts.every((part) => part.readBack)
      const percent = say('bench.percent', { n: Math.round(done * 100) })
      return {
        partition: name,
        fate: 'written',
        label: done > 0 && done < 1 ? `${name} · ${percent}` : name,
        says: say('brick.says', { ...about, fate: `${say('brick.written')}, ${percent}` }),
        done,
        readBack,
      }
    }),
  }
}
