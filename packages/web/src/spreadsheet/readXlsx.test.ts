import { strToU8, zipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import writeXlsx from 'write-excel-file/universal';
import { readXlsx, XLSX_BOUNDS } from './readXlsx.js';
import { xlsxOf } from './spreadsheet.js';

const bytesOf = async (blob: Blob) => new Uint8Array(await blob.arrayBuffer());

/** An XLSX file with this as its sheet (ECMA-376, part 1, the least that opens). */
function fileOf(sheet: string, more: Record<string, Uint8Array> = {}): Uint8Array<ArrayBuffer> {
  const main = 'http://schemas.openxmlformats.org/spreadsheetml/2006/main';
  const relations = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
  const packages = 'http://schemas.openxmlformats.org/package/2006';
  const text = (xml: string) => strToU8(`<?xml version="1.0" encoding="UTF-8" standalone="yes"?>${xml}`);
  return zipSync({
    '[Content_Types].xml': text(
      `<Types xmlns="${packages}/content-types"><Default Extension="xml" ContentType="application/xml"/><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Override PartName="/xl/workbook.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.sheet.main+xml"/><Override PartName="/xl/worksheets/sheet1.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.worksheet+xml"/></Types>`,
    ),
    '_rels/.rels': text(
      `<Relationships xmlns="${packages}/relationships"><Relationship Id="r1" Type="${relations}/officeDocument" Target="xl/workbook.xml"/></Relationships>`,
    ),
    'xl/workbook.xml': text(
      `<workbook xmlns="${main}" xmlns:r="${relations}"><sheets><sheet name="One" sheetId="1" r:id="r1"/></sheets></workbook>`,
    ),
    'xl/_rels/workbook.xml.rels': text(
      `<Relationships xmlns="${packages}/relationships"><Relationship Id="r1" Type="${relations}/worksheet" Target="worksheets/sheet1.xml"/></Relationships>`,
    ),
    'xl/worksheets/sheet1.xml': text(`<worksheet xmlns="${main}">${sheet}</worksheet>`),
    ...more,
  }) as Uint8Array<ArrayBuffer>;
}

const cell = (at: string, text: string) => `<c r="${at}" t="inlineStr"><is><t>${text}</t></is></c>`;

describe('an XLSX file', () => {
  it('gives the cells that were written, each in its row and column', async () => {
    const table = [
      ['Family', 'Wall', 'On hand'],
      ['main', '1.9950 mm', '8'],
      ['', '', ''],
      ['rod', '=1+1', '0'],
    ];
    const { content } = await xlsxOf('A name / that is far too long for a sheet', table);
    expect(await readXlsx(await bytesOf(content as Blob))).toEqual(table);
  });

  it('gives numbers with the digits of the file, dates as days, and what a formula came to', async () => {
    const blob = await writeXlsx([
      [{ type: Date, value: new Date('2026-03-04T00:00:00Z'), format: 'yyyy-mm-dd' }, true],
    ]).toBlob();
    expect(await readXlsx(await bytesOf(blob))).toEqual([['2026-03-04', 'true']]);
    const sheet =
      '<sheetData><row r="2"><c r="B2"><v>64.0100</v></c><c r="C2"><f>1+1</f><v>2</v></c></row></sheetData>';
    expect(await readXlsx(fileOf(sheet))).toEqual([
      ['', '', ''],
      ['', '64.0100', '2'],
    ]);
  });

  it('that claims more than a drawer holds is refused before it is unpacked', async () => {
    const far = `<dimension ref="A1:XFD1048576"/><sheetData><row r="1048576">${cell('XFD1048576', 'x')}</row></sheetData>`;
    const small = fileOf(far);
    expect(small.length).toBeLessThan(6000);
    await expect(readXlsx(small)).rejects.toThrow(`beyond row ${XLSX_BOUNDS.rows} or column ${XLSX_BOUNDS.columns}`);
    const wide = fileOf(`<sheetData><row r="1">${cell('XFD1', 'x')}</row></sheetData>`);
    await expect(readXlsx(wide)).rejects.toThrow('beyond row');
    const bomb = fileOf('<sheetData/>', { 'xl/media/x.bin': new Uint8Array(8 * 2 ** 20) });
    expect(bomb.length).toBeLessThan(30_000);
    await expect(readXlsx(bomb)).rejects.toThrow('unpacks to more than Fettle takes');
    const many = Object.fromEntries(Array.from({ length: 600 }, (_, at) => [`x/${at}.xml`, strToU8('x')]));
    await expect(readXlsx(fileOf('<sheetData/>', many))).rejects.toThrow('more than 500 parts');
    await expect(readXlsx(new Uint8Array(11 * 2 ** 20))).rejects.toThrow('more than 10 MB');
  });

  it('that lies about how long a part is fills nothing beyond what it says', async () => {
    const honest = fileOf(`<sheetData><row r="1">${cell('A1', 'x'.repeat(200_000))}</row></sheetData>`);
    const lying = honest.slice();
    // The length of each part in the list of contents, made small (APPNOTE 6.3.10, 4.3.12: offset 24).
    for (let at = 0; at + 46 < lying.length; at += 1) {
      const isEntry = lying[at] === 0x50 && lying[at + 1] === 0x4b && lying[at + 2] === 1 && lying[at + 3] === 2;
      if (isEntry) lying.set([10, 0, 0, 0], at + 24);
    }
    await expect(readXlsx(lying)).rejects.toThrow();
  });

  it('that is none is told in words', async () => {
    for (const bytes of [new Uint8Array(0), strToU8('Family;Wall'), fileOf('').slice(0, 300)]) {
      await expect(readXlsx(bytes as Uint8Array<ArrayBuffer>)).rejects.toThrow('not an XLSX file, or it is damaged');
    }
  });
});
