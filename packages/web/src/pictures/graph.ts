/** Where modes of a family stand in a drawing of its ways: the quiet ones left, its system right, the others between. */
import type { Family, ModeKind } from '@plain-slate/core'

export type Node = {
  readonly id: string
  readonly name: string
  readonly x: number
  readonly y: number
}
export type Edge = {
  readonly from: string
  readonly to: string
  readonly hands: boolean
  readonly say: string
  /** A path of the drawing, and where its head points. */
  readonly path: string
}

const COLUMN: Readonly<Record<ModeKind, number>> = {
  off: 0,
  hang: 0,
  loop: 0,
  writing: 1,
  rescue: 1,
  system: 2,
}
export const NODE = { wide: 132, high: 34 }
const ACROSS = 270
const DOWN = 84
const EDGE = 12
/** How far a way bends, so that the way back does not lie on it. */
const BEND = 22
const PAST = 190

export function nodesOf({ modes }: Pick<Family, 'modes'>): readonly Node[] {
  const tallest = Math.max(...[0, 1, 2].map((at) => inColumn(modes, at).length))
  return [0, 1, 2].flatMap((column) => {
    const own = inColumn(modes, column)
    const top = ((tallest - own.length) * DOWN) / 2
    return own.map(({ id, name }, row) => ({
      id,
      name,
      x: EDGE + column * ACROSS,
      y: EDGE + top + row * DOWN,
    }))
  })
}

const inColumn = (modes: Family['modes'], column: number) =>
  modes.filter(({ kind }) => COLUMN[kind] === column)

/** Every way, from each mode where it begins. */
export function edgesOf(family: Pick<Family, 'modes' | 'ways'>): readonly Edge[] {
  const nodes = new Map(nodesOf(family).map((one) => [one.id, one]))
  return family.ways.flatMap(({ from, to, hands, say }) =>
    (from === 'any' ? family.modes.map(({ id }) => id) : from)
      .filter((one) => one !== to)
      .flatMap((one) => {
        const [a, b] = [nodes.get(one), nodes.get(to)]
        return a === undefined || b === undefined
          ? []
          : [{ from: one, to, hands, say, path: pathOf(a, b) }]
      }),
  )
}

/** From the edge of one box to the edge of the other, bent to its left. */
function pathOf(a: Node, b: Node): string {
  const [from, to] = [centre(a), centre(b)]
  const [dx, dy] = [to.x - from.x, to.y - from.y]
  const far = Math.hypot(dx, dy) || 1
  const start = leaving(from, dx, dy)
  const end = leaving(to, -dx, -dy)
  /* Past a box between them in their own column. */
  const aside = dx === 0 && Math.abs(dy) > DOWN ? PAST : BEND
  const bend = {
    x: (from.x + to.x) / 2 - (dy / far) * aside,
    y: (from.y + to.y) / 2 + (dx / far) * aside,
  }
  const at = (point: { x: number; y: number }) => `${point.x.toFixed(1)} ${point.y.toFixed(1)}`
  return `M${at(start)} Q${at(bend)} ${at(end)}`
}

const centre = ({ x, y }: Node) => ({ x: x + NODE.wide / 2, y: y + NODE.high / 2 })

/** Where a line from a box's middle leaves it. */
function leaving({ x, y }: { x: number; y: number }, dx: number, dy: number) {
  const share = Math.min(
    dx === 0 ? Infinity : NODE.wide / 2 / Math.abs(dx),
    dy === 0 ? Infinity : NODE.high / 2 / Math.abs(dy),
  )
  return { x: x + dx * share, y: y + dy * share }
}
