/** The bench files of agents: one for all, or one of its own for each of two benches. */
import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'

const fileNamed = (name: string): string => name.replace(' ', '-')

/** Gives each agent its own ports of the one bench, and a computer of its own. */
export function writeParts(
  folder: string,
  benches: Readonly<Record<string, readonly string[]>>,
): void {
  const file = readFileSync(join(folder, 'agent.json'), 'utf8')
  const whole = JSON.parse(file) as { readonly ports: Readonly<Record<string, object>> }
  for (const [name, held] of Object.entries(benches)) {
    const ports = Object.entries(whole.ports).filter(([port]) => held.includes(port))
    const computer = `${fileNamed(name)}-computer.json`
    const own = { ...whole, ports: Object.fromEntries(ports) as object, computer }
    writeFileSync(join(folder, `${fileNamed(name)}.json`), JSON.stringify(own), { mode: 0o600 })
  }
}

/** The file that an agent goes by: its own, where it has one. */
export function benchFileFor(folder: string, name: string): string {
  const own = join(folder, `${fileNamed(name)}.json`)
  return existsSync(own) ? own : join(folder, 'agent.json')
}
