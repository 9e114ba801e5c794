import * as pdfmakeModule from 'pdfmake'
import type { TDocumentDefinitions, TFontDictionary } from 'pdfmake/interfaces'

/** The server's side of the package, which its published types leave out. */
interface ServerPdfmake {
  virtualfs: { writeFileSync(name: string, bytes: Buffer): void }
  setFonts(fonts: TFontDictionary): void
  setUrlAccessPolicy(allow: (url: string) => boolean): void
  setLocalAccessPolicy(allow: (path: string) => boolean): void
  createPdf(definition: TDocumentDefinitions): { getBuffer(): Promise<Buffer> }
}
const pdfmake = ('default' in pdfmakeModule ? pdfmakeModule.default : pdfmakeModule) as unknown as ServerPdfmake

const FONTS = { regular: 'AtkinsonHyperlegibleNext_400Regular.ttf', bold: 'AtkinsonHyperlegibleNext_700Bold.ttf' } as const
let prepared: Promise<void> | undefined

/** Renders a document with the fonts that ship with the program; nothing is fetched from anywhere. */
export async function renderPdf(definition: TDocumentDefinitions): Promise<Buffer> {
  prepared ??= prepareFonts()
  await prepared
  return pdfmake.createPdf(definition).getBuffer()
}

async function prepareFonts(): Promise<void> {
  for (const weight of ['regular', 'bold'] as const) {
    const bytes = await useStorage(`assets:font-${weight}`).getItemRaw<Uint8Array>(FONTS[weight])
    if (!bytes) throw new Error(`The font ${FONTS[weight]} is missing from the build.`)
    pdfmake.virtualfs.writeFileSync(FONTS[weight], Buffer.from(bytes))
  }
  pdfmake.setFonts({ Atkinson: { normal: FONTS.regular, bold: FONTS.bold, italics: FONTS.regular, bolditalics: FONTS.bold } })
  pdfmake.setUrlAccessPolicy(() => false)
  pdfmake.setLocalAccessPolicy(() => false)
}
