/** CSV after RFC 4180, with cells that a spreadsheet would run as a formula made harmless. */
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
  await pipeline(Readable.from(rows), text, res)
}
