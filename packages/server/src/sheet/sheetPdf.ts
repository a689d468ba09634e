import {
  type BuildSheet,
  type Paper,
  type SignedSheet,
  STATE_WORDS,
  type StationState,
  sheetInThousandths,
} from '@fettle/core';
import type { Content, TableCell } from 'pdfmake';
import { type Definition, MARGIN, paperMoment, pdfOf, type Reader, WIDTHS } from './paper.js';
import { paperText } from './paperText.js';
import { shaftSvg } from './shaftSvg.js';

/** What is put on paper. */
export interface PdfTask extends Reader {
  readonly sheet: BuildSheet;
  /** Its sign-off; null for a sheet that is not signed. */
  readonly signed: SignedSheet | null;
  readonly paper: Paper['paper'];
  /** True if its clearances are in the engine's unit, or in thousandths of an inch. */
  readonly clearances: Paper['clearances'];
}

/** The sheet is set smaller, twice at most, so that what is no reading stays on one page. */
const SIZES = [7.4, 6.6, 5.9] as const;
/** Readings are looked up, not read through: set smaller, those of a V8 stay on one page. */
const READINGS = 0.9;
/** Names what stands last before the readings. */
const END = 'end of the sheet';
/** What begins on the first page and ends on the next takes a little more than one. */
const LEAST_OVER = 1.001;

type Table = BuildSheet['tables'][number];

function cellOf(cell: Table['rows'][number][number], isFigure: boolean, size: number, reader: Reader): TableCell {
  const { text, small, state, at } = cell;
  const said = [
    state === undefined ? '' : STATE_WORDS[state as StationState],
    text,
    at === undefined ? '' : paperMoment(at, reader),
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

function tableOf({ title, head, rows, figures }: Table, size: number, reader: Reader, padding = 1): Content[] {
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
            head.map((_, at): TableCell => (row[at] ? cellOf(row[at], isFigure(at), size, reader) : '')),
          ),
        ],
      },
      layout: {
        hLineWidth: () => 0.4,
        vLineWidth: () => 0.4,
        paddingLeft: () => 2,
        paddingRight: () => 2,
        paddingTop: () => padding,
        paddingBottom: () => padding,
      },
    },
  ];
}

function factsOf({ facts }: BuildSheet, reader: Reader): Content {
  const told = facts.map(
    ({ label, text, at }): Content => ({
      text: [
        ...paperText(`${label}: `),
        ...paperText(at === undefined ? text : `${text}, ${paperMoment(at, reader)}`).map((run) => ({
          ...run,
          bold: true,
        })),
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

function signOffOf({ signed, ...reader }: PdfTask): Content[] {
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
        `Signed by ${signedBy}, ${paperMoment(signedAt, reader)}, revision ${revision}${reason === '' ? '' : `: ${reason}`}.`,
      ),
      bold: true,
      margin: [0, 6, 0, 1],
    },
    { text: paperText(open.length === 0 ? 'No open work.' : `Open when it was signed: ${open.join('; ')}.`) },
  ];
}

function definition(task: PdfTask, size: number, onEnd: (pages: number) => void): Definition {
  const { signed, paper } = task;
  const reader: Reader = task;
  const isThou = task.clearances === 'thou';
  const sheet = isThou ? sheetInThousandths(task.sheet) : task.sheet;
  const width = WIDTHS[paper] - 2 * MARGIN;
  const own = sheet.tables.filter(({ part }) => part !== 'readings');
  const readings = sheet.tables.filter(({ part }) => part === 'readings');
  const foot = signed === null ? `made ${paperMoment(sheet.madeAt, reader)}, not signed` : `SHA-256 ${signed.hash}`;
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
    pageBreakBefore: ({ id, startPosition, pageNumbers }) => {
      if (id === END) {
        const begins = startPosition.pageNumber - 1 + startPosition.verticalRatio;
        onEnd(Math.max(...pageNumbers) > 1 ? Math.max(begins, LEAST_OVER) : begins);
      }
      return false;
    },
    content: [
      { text: paperText(sheet.engine), bold: true, fontSize: 17 },
      factsOf(sheet, reader),
      ...(sheet.layout ? [{ svg: shaftSvg(sheet.layout, width, 62), width }] : []),
      ...own.flatMap((table) => tableOf(table, size, reader)),
      ...signOffOf(task),
      // A node without a sign in it is none.
      {
        id: END,
        text: paperText(sheet.notes.join(' ') || '\u00a0'),
        fontSize: size * 0.9,
        margin: [0, 5, 0, 0],
      } as Content,
      ...(readings.length === 0
        ? []
        : [
            { text: paperText(`Readings of ${sheet.engine}`), bold: true, fontSize: 12, pageBreak: 'before' as const },
            ...readings.flatMap((table) => tableOf(table, size * READINGS, reader, 0.5)),
          ]),
    ],
  };
}

/** It is longer than a page and may fit on one if it is set smaller: laid out no further. */
class TooLong extends Error {
  readonly pages: number;

  constructor(pages: number) {
    super('longer than a page');
    this.pages = pages;
  }
}

/** How many pages something takes that is set smaller, at the least: lines are lower, and more stands on each. */
function atLeast(pages: number, from: number, to: number): number {
  return pages * (to / from) ** 2;
}

const [FIRST, ...SMALLER] = SIZES;
const SMALLEST = SIZES.at(-1)!;

/** Lays it out in a size. @throws TooLong where it is longer than a page, and `mayBeLonger` does not take that */
async function laidOut(task: PdfTask, size: number, mayBeLonger: (pages: number) => boolean): Promise<Uint8Array> {
  let tooLong: TooLong | null = null;
  const made = definition(task, size, (pages) => {
    if (pages <= 1 || mayBeLonger(pages)) return;
    tooLong = new TooLong(pages);
    throw tooLong;
  });
  try {
    return await pdfOf(made);
  } catch (error) {
    throw tooLong ?? error;
  }
}

/**
 * Puts a build sheet on paper: what its page says, on one page where it fits (set smaller if it must be), every reading on pages of its own.
 * It is laid out once where it fits as it is, or would not fit however small; else once for each size that it may fit in.
 * Runs in a worker thread.
 */
export async function sheetPdf(task: PdfTask): Promise<Uint8Array> {
  try {
    // One that is longer all the same is set as large as any: more pages, and all of them readable.
    return await laidOut(task, FIRST, (pages) => atLeast(pages, FIRST, SMALLEST) > 1);
  } catch (error) {
    if (!(error instanceof TooLong)) throw error;
    for (const size of SMALLER) {
      if (atLeast(error.pages, FIRST, size) > 1) continue;
      const smaller = await laidOut(task, size, () => false).catch((fault: unknown) => {
        if (fault instanceof TooLong) return null;
        throw fault;
      });
      if (smaller !== null) return smaller;
    }
    return laidOut(task, FIRST, () => true);
  }
}
