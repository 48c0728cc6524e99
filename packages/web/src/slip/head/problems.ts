/** Problems of a refused input, by the field they are about. */
import type { Trouble } from '../../server/call.ts'

/** "body.device" or "body.due.to" → device, due. */
export function problemsOf(trouble: Trouble | undefined): Readonly<Record<string, string>> {
  const named = trouble?.where ?? []
  return Object.fromEntries(named.map(({ path, problem }) => [path.split('.')[1] ?? '', problem]))
}
