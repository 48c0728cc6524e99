/** Our own formats by name, each with the schema that parses it; `docs/formats` is written from these. */
import type { z } from 'zod'
import { hashedEntrySchema } from '../book/entry.ts'
import { computerFileSchema } from '../computer/told.ts'
import { readingsFileSchema } from '../device/readings-file.ts'
import { familySchema } from '../family/file.ts'
import { depotCatalogueSchema } from '../firmware/depot-catalogue.ts'
import { manifestSchema } from '../firmware/manifest.ts'
import { permitFileSchema } from '../firmware/permit-file.ts'
import { slipFileSchema } from '../device/slip-file.ts'
import { journalEntrySchema } from '../run/journal.ts'

export const FORMATS: Readonly<Record<string, z.ZodType>> = {
  'book-entry': hashedEntrySchema,
  family: familySchema,
  catalogue: depotCatalogueSchema,
  manifest: manifestSchema,
  permit: permitFileSchema,
  'journal-entry': journalEntrySchema,
  computer: computerFileSchema,
  readings: readingsFileSchema,
  slip: slipFileSchema,
}
