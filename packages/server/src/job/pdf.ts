/** What every paper of a slip is drawn with: the house's own type, and the bytes once it is drawn. */
import { createRequire } from 'node:module'

const files = createRequire(import.meta.url)

/** A static face of the house's type; the variable ones cannot be subset. */
export const font = (family: 'next' | 'mono', weight: 400 | 700): string =>
  files.resolve(
    `@fontsource/atkinson-hyperlegible-${family}/files/atkinson-hyperlegible-${family}-latin-${weight}-normal.woff`,
  )

/** The bytes of a document once it is ended; asked for before anything is drawn. */
export function bytesOf(pdf: PDFKit.PDFDocument): Promise<Buffer> {
  const parts: Buffer[] = []
  pdf.on('data', (part: Buffer) => parts.push(part))
  return new Promise((resolve) => pdf.on('end', () => resolve(Buffer.concat(parts))))
}
