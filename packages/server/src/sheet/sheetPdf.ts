import { createRequire } from 'node:module';
import { type BuildSheet, type Paper, type SignedSheet, STATE_WORDS, type StationState } from '@fettle/core';
import pdfmake, { type Content, type TableCell } from 'pdfmake';
import { paperText } from './paperText.js';
import { shaftSvg } from './shaftSvg.js';

type Definition = Parameters<typeof pdfmake.createPdf>[0];

/** What is put on paper. */
export interface PdfTask {
  readonly sheet: BuildSheet;
  /** Its sign-off; null for a sheet that is not signed. */
  readonly signed: SignedSheet | null;
  readonly paper: Paper['paper'];
  readonly zone: string;
}

const require = createRequire(import.meta.url);
const fontFile = (name: string) => require.resolve(`@fontsource/atkinson-hyperlegible-${name}.woff`);
const face = (family: 'next' | 'mono', part: 'latin' | 'latin-ext') => {
  const file = (weight: number) => fontFile(`${family}/files/atkinson-hyperlegible-${family}-${part}-${weight}-normal`);
  return { normal: file(400), bold: file(700) };
};

// The only files that are read are the fonts; nothing is fetched.
pdfmake.setUrlAccessPolicy(() => false);
pdfmake.setLocalAccessPolicy((path) => path.endsWith('.woff'));
pdfmake.addFonts({
  Text: face('next', 'latin'),
  TextExtended: face('next', 'latin-ext'),
  Figures: face('mono', 'latin'),
  FiguresExtended: face('mono', 'latin-ext'),
});

/** Margin on every side, points. */
const MARGIN = 34;
const WIDTHS = { A4: 595.28, Letter: 612 } as const;
/** The sheet is set smaller, twice at most, so that what is no reading stays on one page. */
const SIZES = [7.4, 6.6, 5.9] as const;

/** A moment as the workshop's clock tells it. */
export function zoned(at: string, zone: string): string {
  return new Intl.DateTimeFormat('en-GB', {
    timeZone: zone,
    day: 'numeric',
    month: 'short',
    year: 'numeric',
    hour: '2-digit',
    minute: '2-digit',
    hourCycle: 'h23',
  })
    .format(new Date(at))
    .replace(',', '');
}

type Table = BuildSheet['tables'][number];

function cellOf(cell: Table['rows'][number][number], isFigure: boolean, size: number, zone: string): TableCell {
  const { text, small, state, at } = cell;
  const said = [
    state === undefined ? '' : STATE_WORDS[state as StationState],
    text,
    at === undefined ? '' : zoned(at, zone),
  ]
    .filter((part) => part !== '')
    .join(' ');
  return {
    text: [
      ...paperText(said, isFigure ? 'Figures' : 'Text').map((run) => ({ ...run, bold: state !== undefined })),
      ...(small === undefined ? [] : paperText(`\n${small}`, 'Text').map((run) => ({ ...run, fontSize: size * 0.82 }))),
    ],
    alignment: isFigure ? 'right' : 'left',
  };
}

function tableOf({ title, head, rows, figures }: Table, size: number, zone: string): Content[] {
  const isFigure = (at: number) => figures?.[at] ?? false;
  return [
    { text: paperText(title), bold: true, fontSize: size * 1.2, margin: [0, 5, 0, 1.5] },
    {
      table: {
        headerRows: 1,
        dontBreakRows: true,
        widths: head.map((_, at) => (isFigure(at) ? 'auto' : '*')),
        body: [
          head.map(
            (text, at): TableCell => ({
              text: paperText(text),
              bold: true,
              alignment: isFigure(at) ? 'right' : 'left',
            }),
          ),
          ...rows.map((row) =>
            head.map((_, at): TableCell => (row[at] ? cellOf(row[at], isFigure(at), size, zone) : '')),
          ),
        ],
      },
      layout: {
        hLineWidth: () => 0.4,
        vLineWidth: () => 0.4,
        paddingLeft: () => 2,
        paddingRight: () => 2,
        paddingTop: () => 1,
        paddingBottom: () => 1,
      },
    },
  ];
}

function factsOf({ facts }: BuildSheet, zone: string): Content {
  const told = facts.map(
    ({ label, text, at }): Content => ({
      text: [
        ...paperText(`${label}: `),
        ...paperText(at === undefined ? text : `${text}, ${zoned(at, zone)}`).map((run) => ({ ...run, bold: true })),
      ],
      margin: [0, 0, 0, 1],
    }),
  );
  const third = Math.ceil(told.length / 3);
  return {
    columns: [0, 1, 2].map((column) => ({ stack: told.slice(column * third, (column + 1) * third) })),
    columnGap: 12,
    margin: [0, 4, 0, 4],
  };
}

function signOffOf({ signed, zone }: PdfTask): Content[] {
  if (signed === null) {
    const line = (label: string): Content => ({
      stack: [{ canvas: [{ type: 'line', x1: 0, y1: 0, x2: 150, y2: 0, lineWidth: 0.5 }] }, { text: paperText(label) }],
    });
    return [
      {
        columns: [line('Fitted by, date'), line('Checked by, date'), line('Remarks')],
        columnGap: 16,
        margin: [0, 22, 0, 4],
      },
    ];
  }
  const { revision, signedBy, signedAt, reason, open } = signed;
  return [
    {
      text: paperText(
        `Signed by ${signedBy}, ${zoned(signedAt, zone)}, revision ${revision}${reason === '' ? '' : `: ${reason}`}.`,
      ),
      bold: true,
      margin: [0, 6, 0, 1],
    },
    { text: paperText(open.length === 0 ? 'Nothing was open.' : `Open when it was signed: ${open.join('; ')}.`) },
  ];
}

function definition(task: PdfTask, size: number, withReadings: boolean): Definition {
  const { sheet, signed, paper, zone } = task;
  const width = WIDTHS[paper] - 2 * MARGIN;
  const own = sheet.tables.filter(({ part }) => part !== 'readings');
  const readings = withReadings ? sheet.tables.filter(({ part }) => part === 'readings') : [];
  const foot = signed === null ? `made ${zoned(sheet.madeAt, zone)}, not signed` : `SHA-256 ${signed.hash}`;
  return {
    pageSize: paper === 'A4' ? 'A4' : 'LETTER',
    pageMargins: [MARGIN, MARGIN - 6, MARGIN, MARGIN],
    info: { title: sheet.engine, author: signed?.signedBy ?? sheet.madeBy, subject: 'Build sheet' },
    defaultStyle: { font: 'Text', fontSize: size, lineHeight: 1.08 },
    footer: (page: number, pages: number): Content => ({
      columns: [
        { text: paperText(`${sheet.engine} · ${foot}`), width: '*' },
        { text: `${page} of ${pages}`, width: 'auto' },
      ],
      margin: [MARGIN, 8, MARGIN, 0],
      fontSize: 6,
    }),
    content: [
      { text: paperText(sheet.engine), bold: true, fontSize: 17 },
      factsOf(sheet, zone),
      ...(sheet.layout ? [{ svg: shaftSvg(sheet.layout, width, 62), width }] : []),
      ...own.flatMap((table) => tableOf(table, size, zone)),
      ...signOffOf(task),
      { text: paperText(sheet.notes.join(' ')), fontSize: size * 0.9, margin: [0, 5, 0, 0] },
      ...(readings.length === 0
        ? []
        : [
            { text: paperText(`Readings of ${sheet.engine}`), bold: true, fontSize: 12, pageBreak: 'before' as const },
            ...readings.flatMap((table) => tableOf(table, size, zone)),
          ]),
    ],
  };
}

/** Pages of a document, told by its footer. */
async function pagesOf(made: Definition): Promise<number> {
  let pages = 0;
  const { footer } = made;
  const counted: Definition = {
    ...made,
    footer: (page, count, pageSize) => {
      pages = count;
      return typeof footer === 'function' ? footer(page, count, pageSize) : '';
    },
  };
  await pdfmake.createPdf(counted).getBuffer();
  return pages;
}

/**
 * Puts a build sheet on paper: what its page says, on one page where it fits (set smaller if it must be), every reading on pages of its own.
 * Runs in a worker thread.
 */
export default async function sheetPdf(task: PdfTask): Promise<Uint8Array> {
  // One that is longer all the same is set as large as any: more pages, and all of them readable.
  let size: number = SIZES[0];
  for (const tried of SIZES) {
    if ((await pagesOf(definition(task, tried, false))) > 1) continue;
    size = tried;
    break;
  }
  const buffer = await pdfmake.createPdf(definition(task, size, true)).getBuffer();
  return new Uint8Array(buffer);
}
