import { PDFDocument, StandardFonts } from 'pdf-lib';

/** A made-up hygiene certificate of one page. The standard fonts write Latin letters only. */
export async function certificate(latinName: string, number: number): Promise<Buffer> {
  const pdf = await PDFDocument.create();
  const page = pdf.addPage([420, 298]);
  const font = await pdf.embedFont(StandardFonts.Helvetica);
  const plain = latinName.normalize('NFKD').replace(/[^\x20-\x7e]/g, '');
  page.drawText('Quillmere Polytechnic', { x: 36, y: 240, size: 11, font });
  page.drawText('Food hygiene, level 2', { x: 36, y: 208, size: 20, font });
  page.drawText(plain, { x: 36, y: 168, size: 14, font });
  page.drawText(`Certificate Q-${2000 + number}, valid for two years. A made-up paper.`, {
    x: 36,
    y: 60,
    size: 9,
    font,
  });
  pdf.setCreationDate(new Date(0));
  pdf.setModificationDate(new Date(0));
  return Buffer.from(await pdf.save());
}
