import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import * as pdfmakeModule from 'pdfmake'
import type { TDocumentDefinitions, TFontDictionary } from 'pdfmake/interfaces'

/** The server's side of the package, which its published types leave out. */
interface ServerPdfmake {
  setFonts(fonts: TFontDictionary): void
  setUrlAccessPolicy(allow: (url: string) => boolean): void
  setLocalAccessPolicy(allow: (path: string) => boolean): void
  createPdf(definition: TDocumentDefinitions): { getBuffer(): Promise<Buffer> }
}
const pdfmake = ('default' in pdfmakeModule ? pdfmakeModule.default : pdfmakeModule) as unknown as ServerPdfmake

const FONTS = {
  regular: 'AtkinsonHyperlegibleNext_400Regular.ttf',
  bold: 'AtkinsonHyperlegibleNext_700Bold.ttf',
} as const
let prepared: Promise<void> | undefined

/** Renders a document with the fonts that ship with the program; nothing is fetched from anywhere. */
export async function renderPdf(definition: TDocumentDefinitions): Promise<Buffer> {
  prepared ??= prepareFonts()
  await prepared
  return pdfmake.createPdf(definition).getBuffer()
}

/** Text inside a chart opens its font as a file, so the two fonts are laid out in a folder; no other file may be read. */
async function prepareFonts(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'echoppe-fonts-'))
  process.once('exit', () => rmSync(folder, { recursive: true, force: true }))
  const files = { regular: join(folder, FONTS.regular), bold: join(folder, FONTS.bold) }
  for (const weight of ['regular', 'bold'] as const) {
    const bytes = await useStorage(`assets:font-${weight}`).getItemRaw<Uint8Array>(FONTS[weight])
    if (!bytes) throw new Error(`The font ${FONTS[weight]} is missing from the build.`)
    writeFileSync(files[weight], bytes)
  }
  pdfmake.setFonts({
    Atkinson: { normal: files.regular, bold: files.bold, italics: files.regular, bolditalics: files.bold },
  })
  pdfmake.setUrlAccessPolicy(() => false)
  pdfmake.setLocalAccessPolicy((path) => path === files.regular || path === files.bold)
}
