/**
 * The label that goes on a device while it is here: its number large, what it is, when it is due, and the number again
 * as QR and Code 128, which a scanner types into the find box. No personal text is on it. ISO/IEC 18004 and 15417 are
 * the library's; sizes are millimetres of a 62 by 29 label.
 */
import { toBuffer } from 'bwip-js/node'
import PDFDocument from 'pdfkit'
import { speaker } from '@plain-slate/texts'
import type { JobAt } from './job-at.ts'
import { bytesOf, font } from './pdf.ts'

const say = speaker('en-GB')
const PT_PER_MM = 72 / 25.4
const mm = (n: number): number => n * PT_PER_MM
const SIZE = { wide: 62, high: 29 }
const QR = { at: 41, side: 18 }
const BARS = { x: 3, y: 20, wide: 34, high: 6.5 }
/** Dots a module: fine enough for any label printer. */
const SCALE = 6

export type LabelSaid = {
  readonly number: string
  readonly device: string
  readonly under: string
  /** What a scanner types. */
  readonly code: string
}

/** What the label says; times are the shop's own. */
export function labelOf({ slip }: Pick<JobAt, 'slip'>, zone: string): LabelSaid {
  const { number, device, due, intent } = slip
  const day = due === null ? say('label.no-due') : say('label.due', { date: timeIn(zone, due) })
  return { number, device, under: `${say(`intent.${intent}`)}, ${day}`, code: number }
}

/** "2026-10-15 17:30", on the shop's clock. */
const timeIn = (zone: string, at: string): string =>
  new Intl.DateTimeFormat('sv-SE', {
    timeZone: zone,
    dateStyle: 'short',
    timeStyle: 'short',
  }).format(new Date(at))

/** The two codes as PNGs: black on white, without text of their own. */
export async function codesOf({ code }: LabelSaid): Promise<{ qr: Buffer; bars: Buffer }> {
  const [qr, bars] = await Promise.all([
    toBuffer({ bcid: 'qrcode', text: code, scale: SCALE, padding: 2 }),
    toBuffer({ bcid: 'code128', text: code, scale: SCALE, height: 8, paddingwidth: 6 }),
  ])
  return { qr, bars }
}

/** Draws a label as a page of its own size. */
export async function drawLabel(said: LabelSaid): Promise<Buffer> {
  const { qr, bars } = await codesOf(said)
  const info = { Title: say('label.title', { number: said.number }) }
  const size: [number, number] = [mm(SIZE.wide), mm(SIZE.high)]
  const pdf = new PDFDocument({ size, margin: 0, info, lang: 'en-GB', displayTitle: true })
  const done = bytesOf(pdf)
  const width = mm(QR.at - BARS.x - 1)
  const line = { width, height: mm(4), ellipsis: true, lineBreak: false }
  pdf.font(font('mono', 700)).fontSize(24).text(said.number, mm(BARS.x), mm(2.5), line)
  pdf.font(font('next', 700)).fontSize(9).text(said.device, mm(BARS.x), mm(11.5), line)
  pdf.font(font('next', 400)).fontSize(7.5).text(said.under, mm(BARS.x), mm(15.5), line)
  pdf.image(bars, mm(BARS.x), mm(BARS.y), { width: mm(BARS.wide), height: mm(BARS.high) })
  pdf.image(qr, mm(QR.at), mm((SIZE.high - QR.side) / 2), { width: mm(QR.side) })
  pdf.end()
  return done
}
