/** Draws a paper of a slip: A4, one column, the slip's number as QR where it is asked for. ISO/IEC 18004 is the library's. */
import { toBuffer } from 'bwip-js/node'
import PDFDocument from 'pdfkit'
import { bytesOf, font } from './pdf.ts'

export type Block = { readonly title: string; readonly lines: readonly string[] }
export type Sheet = {
  readonly title: string
  readonly under: string
  readonly blocks: readonly Block[]
  readonly foot: readonly string[]
  /** What a scanner types; left out: no code. */
  readonly code?: string
}

const PAGE = { size: 'A4', margin: 56 } as const
const PT = { title: 20, heading: 12, text: 11, foot: 9 } as const
/** Points of an A4 page, and of the square of the code at its upper right. */
const CODE = { right: 595 - 56, top: 48, side: 62 } as const
/** Dots a module. */
const SCALE = 6

/** The foot's last line stands in the file's own keywords too. */
export async function drawSheet(sheet: Sheet, shop: string): Promise<Buffer> {
  const info = { Title: sheet.title, Author: shop, Keywords: sheet.foot.at(-1) ?? '' }
  const qr =
    sheet.code === undefined
      ? undefined
      : await toBuffer({ bcid: 'qrcode', text: sheet.code, scale: SCALE, padding: 2 })
  const pdf = new PDFDocument({ ...PAGE, info, lang: 'en-GB', displayTitle: true })
  const done = bytesOf(pdf)
  if (qr !== undefined) pdf.image(qr, CODE.right - CODE.side, CODE.top, { width: CODE.side })
  const wide = qr === undefined ? {} : { width: CODE.right - CODE.side - PAGE.margin - 12 }
  pdf.font(font('next', 400)).fontSize(PT.text).text(shop, PAGE.margin, PAGE.margin, wide)
  pdf.moveDown(0.6).font(font('next', 700)).fontSize(PT.title).text(sheet.title, wide)
  pdf.font(font('next', 400)).fontSize(PT.text).text(sheet.under, wide)
  for (const { title, lines } of sheet.blocks) {
    pdf.moveDown(0.9).font(font('next', 700)).fontSize(PT.heading).text(title)
    pdf.font(font('next', 400)).fontSize(PT.text)
    for (const line of lines) pdf.text(line, { lineGap: 2 })
  }
  pdf.moveDown(1.6).fontSize(PT.foot)
  const [caution = '', ...book] = sheet.foot
  pdf.text(caution).moveDown(0.6).font(font('mono', 400))
  for (const line of book) pdf.text(line)
  pdf.end()
  return done
}
