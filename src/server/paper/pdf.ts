import path from 'node:path';
import pdfmake from 'pdfmake';
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces';

export const PAPER_SIZES = ['A4', 'LETTER'] as const;
type PaperSize = (typeof PAPER_SIZES)[number];

const fontFile = (family: string, weight: 400 | 700): string =>
  path.join(
    process.cwd(),
    'node_modules/@fontsource',
    `atkinson-hyperlegible-${family}`,
    'files',
    `atkinson-hyperlegible-${family}-latin-${weight}-normal.woff`,
  );

let ready = false;

/** The typefaces ship with the app; no other file and no address is opened while a page is made. */
function makeReady(): void {
  if (ready) return;
  const face = (family: string) => ({
    normal: fontFile(family, 400),
    bold: fontFile(family, 700),
    italics: fontFile(family, 400),
    bolditalics: fontFile(family, 700),
  });
  pdfmake.addFonts({ Text: face('next'), Mono: face('mono') });
  pdfmake.setLocalAccessPolicy((name: string) => name.includes('atkinson-hyperlegible'));
  pdfmake.setUrlAccessPolicy(() => false);
  ready = true;
}

const SOURCES_FIRST = 'The manufacturer’s service information, local codes and licensed practice come first.';

/** A printed sheet. Every page names what it belongs to. */
export async function makePdf(title: string, size: PaperSize, content: Content): Promise<Buffer> {
  makeReady();
  const document: TDocumentDefinitions = {
    pageSize: size,
    pageMargins: [38, 42, 38, 42],
    info: { title, creator: 'Isobar' },
    defaultStyle: { font: 'Text', fontSize: 10, lineHeight: 1.15 },
    styles: {
      h1: { fontSize: 17, bold: true, margin: [0, 0, 0, 2] },
      h2: { fontSize: 12, bold: true, margin: [0, 10, 0, 3] },
      large: { fontSize: 13 },
      soft: { color: '#555555', fontSize: 9 },
      code: { font: 'Mono' },
      caution: { bold: true },
    },
    header: { text: title, style: 'soft', margin: [38, 20, 38, 0] },
    footer: (page, pages) => ({
      columns: [
        { text: SOURCES_FIRST, style: 'soft' },
        { text: `${page} of ${pages}`, style: 'soft', alignment: 'right', width: 50 },
      ],
      margin: [38, 12, 38, 0],
    }),
    content,
  };
  return pdfmake.createPdf(document).getBuffer();
}
