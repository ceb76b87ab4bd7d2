import { strToU8, zipSync } from 'fflate';

/** An empty sheet, then one with a gap in line 2. */
export function aWorkbook(): Uint8Array {
  const ns = 'http://schemas.openxmlformats.org/spreadsheetml/2006/main';
  const relations = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
  const text = (ref: string, value: string) => `<c r="${ref}" t="inlineStr"><is><t>${value}</t></is></c>`;
  const rows = `<row r="1">${text('A1', 'Email')}${text('B1', 'Name')}${text('C1', 'No')}</row><row r="3">${text('A3', 'ann@b.example')}${text('B3', 'Ann 한')}<c r="C3"><v>42</v></c></row>`;
  const files = {
    '[Content_Types].xml': `<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="xml" ContentType="application/xml"/><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/></Types>`,
    '_rels/.rels': `<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="r" Type="${relations}/officeDocument" Target="xl/workbook.xml"/></Relationships>`,
    'xl/workbook.xml': `<workbook xmlns="${ns}" xmlns:r="${relations}"><sheets><sheet name="Empty" sheetId="1" r:id="r1"/><sheet name="Class" sheetId="2" r:id="r2"/></sheets></workbook>`,
    'xl/_rels/workbook.xml.rels': `<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="r1" Type="${relations}/worksheet" Target="worksheets/sheet1.xml"/><Relationship Id="r2" Type="${relations}/worksheet" Target="worksheets/sheet2.xml"/></Relationships>`,
    'xl/worksheets/sheet1.xml': `<worksheet xmlns="${ns}"><sheetData></sheetData></worksheet>`,
    'xl/worksheets/sheet2.xml': `<worksheet xmlns="${ns}"><sheetData>${rows}</sheetData></worksheet>`,
  };
  return zipSync(
    Object.fromEntries(
      Object.entries(files).map(([name, xml]) => [name, strToU8(`<?xml version="1.0"?>${xml}`)]),
    ),
  );
}
