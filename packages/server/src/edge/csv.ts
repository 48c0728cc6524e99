/**
 * CSV after RFC 4180, with cells that a spreadsheet would run as a formula made harmless: at their start and,
 * since not every reader honours quotes, at the start of every line within them.
 */
import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { stringify } from 'csv-stringify'
import type { Response } from 'express'

/** Sends rows as an attachment. `=`, `+`, `-`, `@` and control characters at a start get a quote mark. */
export async function sendCsv(
  res: Response,
  fileName: string,
  columns: readonly string[],
  rows: readonly (readonly (string | number)[])[],
): Promise<void> {
  res.setHeader('content-type', 'text/csv; charset=utf-8')
  res.setHeader('content-disposition', `attachment; filename="${fileName}"`)
  const text = stringify({
    header: true,
    columns: [...columns],
    record_delimiter: 'windows',
    escape_formulas: true,
  })
  await pipeline(Readable.from(rows.map((row) => row.map(harmlessLines))), text, res)
}

/** A cell whose later lines begin no formula. */
export const harmlessLines = (cell: string | number): string | number =>
  typeof cell === 'number' ? cell : cell.replaceAll(/([\n\r\u2028\u2029])(?=[=+\-@\t])/g, "$1'")
