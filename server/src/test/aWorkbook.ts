import { strToU8, zipSync } from 'fflate';

const ns = 'http://schemas.openxmlformats.org/spreadsheetml/2006/main';
const relations = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';

/** A cell: a text, a number, or a number that is shown with zeros in front, eight figures in all. Empty: nothing there. */
export type Cell = string | number | { readonly padded: number };
type Rows = readonly (readonly Cell[])[];

/** A workbook of these sheets; `merged` are ranges of the first sheet that has them, like A1:C1. */
export function workbookOf(
  sheets: Readonly<Record<string, Rows>>,
  merged: Readonly<Record<string, readonly string[]>> = {},
): Uint8Array {
  const names = Object.keys(sheets);
  const files = {
    '[Content_Types].xml': `<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="xml" ContentType="application/xml"/><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/></Types>`,
    '_rels/.rels': `<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="r" Type="${relations}/officeDocument" Target="xl/workbook.xml"/></Relationships>`,
    'xl/workbook.xml': `<workbook xmlns="${ns}" xmlns:r="${relations}"><sheets>${names.map((name, at) => `<sheet name="${name}" sheetId="${at + 1}" r:id="r${at + 1}"/>`).join('')}</sheets></workbook>`,
    'xl/_rels/workbook.xml.rels': `<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships">${names.map((_, at) => `<Relationship Id="r${at + 1}" Type="${relations}/worksheet" Target="worksheets/sheet${at + 1}.xml"/>`).join('')}<Relationship Id="styles" Type="${relations}/styles" Target="styles.xml"/></Relationships>`,
    'xl/styles.xml': `<styleSheet xmlns="${ns}"><numFmts count="1"><numFmt numFmtId="164" formatCode="00000000"/></numFmts><cellXfs count="2"><xf numFmtId="0"/><xf numFmtId="164" applyNumberFormat="1"/></cellXfs></styleSheet>`,
    ...Object.fromEntries(
      names.map((name, at) => [
        `xl/worksheets/sheet${at + 1}.xml`,
        sheetOf(sheets[name] ?? [], merged[name] ?? []),
      ]),
    ),
  };
  return zipSync(
    Object.fromEntries(
      Object.entries(files).map(([name, xml]) => [name, strToU8(`<?xml version="1.0"?>${xml}`)]),
    ),
  );
}

function sheetOf(rows: Rows, merged: readonly string[]): string {
  const cells = rows.map((row, at) => {
    const filled = row
      .map((cell, column) => cellOf(`${String.fromCharCode(65 + column)}${at + 1}`, cell))
      .join('');
    return filled === '' ? '' : `<row r="${at + 1}">${filled}</row>`;
  });
  const bands = merged.map((range) => `<mergeCell ref="${range}"/>`).join('');
  return `<worksheet xmlns="${ns}"><sheetData>${cells.join('')}</sheetData>${bands ? `<mergeCells>${bands}</mergeCells>` : ''}</worksheet>`;
}

function cellOf(ref: string, cell: Cell): string {
  if (cell === '') return '';
  if (typeof cell === 'string') return `<c r="${ref}" t="inlineStr"><is><t>${cell}</t></is></c>`;
  return typeof cell === 'number'
    ? `<c r="${ref}"><v>${cell}</v></c>`
    : `<c r="${ref}" s="1"><v>${cell.padded}</v></c>`;
}

/** An empty sheet, then one with a gap in line 2. */
export const aWorkbook = (): Uint8Array =>
  workbookOf({ Empty: [], Class: [['Email', 'Name', 'No'], [], ['ann@b.example', 'Ann 한', 42]] });
