/** Who imports what: read from the sources with TypeScript's own scanner, Vue's script blocks included. */
import { readFileSync, readdirSync } from 'node:fs'
import { dirname, join, relative } from 'node:path'
import { parse } from '@vue/compiler-sfc'
import ts from 'typescript'
import { ROOT } from '../bootstrap.mjs'

export type Import = {
  /** From the root of the project, with slashes. */
  readonly from: string
  /** A path from the root for our own files, else the module's name. */
  readonly to: string
  readonly isTest: boolean
}

/** Every import of every source under `packages/`. */
export function importsOfPackages(root = ROOT): Import[] {
  const files = readdirSync(join(root, 'packages'), { recursive: true, encoding: 'utf8' })
    .map((file) => join('packages', file))
    .filter((file) => /\/src\/.*\.(ts|vue)$/.test(file) && !/(dist|node_modules)\//.test(file))
  return files.flatMap((file) => importsOf(root, file))
}

function importsOf(root: string, file: string): Import[] {
  const text = readFileSync(join(root, file), 'utf8')
  const isTest = /\.test\.ts$|\/testing\//.test(file)
  return ts
    .preProcessFile(file.endsWith('.vue') ? scriptsOf(text) : text, true, true)
    .importedFiles.map(({ fileName }) => ({ from: file, to: resolved(file, fileName), isTest }))
}

function scriptsOf(text: string): string {
  const { script, scriptSetup } = parse(text).descriptor
  return `${script?.content ?? ''}\n${scriptSetup?.content ?? ''}`
}

function resolved(file: string, name: string): string {
  return name.startsWith('.') ? relative('.', join(dirname(file), name)) : name
}

/** A circle of our own files, as the files on it; undefined when there is none. */
export function circleIn(imports: readonly Import[]): readonly string[] | undefined {
  const next = new Map<string, string[]>()
  for (const { from, to } of imports) next.set(from, [...(next.get(from) ?? []), to])
  const done = new Set<string>()
  const walk = (file: string, path: readonly string[]): readonly string[] | undefined => {
    if (path.includes(file)) return [...path.slice(path.indexOf(file)), file]
    if (done.has(file)) return undefined
    for (const to of next.get(file) ?? []) {
      const circle = walk(to, [...path, file])
      if (circle !== undefined) return circle
    }
    done.add(file)
    return undefined
  }
  for (const file of next.keys()) {
    const circle = walk(file, [])
    if (circle !== undefined) return circle
  }
  return undefined
}
