import type { CustomerReport, Paper, ReportSection, SignedSheet } from '@fettle/core';
import type { Content, TableCell } from 'pdfmake';
import { type Definition, MARGIN, paperMoment, pdfOf, type Reader, WIDTHS } from './paper.js';
import { paperText } from './paperText.js';

/** A picture for the report. */
export interface PaperPicture {
  readonly caption: string;
  /** Its content type, as it was stored. */
  readonly type: string;
  readonly data: Uint8Array;
}

/** A customer's report, to be put on paper. */
export interface ReportTask extends Reader {
  readonly report: CustomerReport;
  readonly signed: SignedSheet;
  readonly pictures: readonly PaperPicture[];
  /** Pictures that are kept with the engine and not sent along. */
  readonly more: number;
  readonly paper: Paper['paper'];
}

/** A report is read at the counter: two pages at most. */
const MOST_PAGES = 2;
/** Sizes of its letters, points, and how many pictures stand on it: the first that fits its pages is taken. */
const TRIES = [
  { size: 10, pictures: 6 },
  { size: 9, pictures: 6 },
  { size: 8.2, pictures: 3 },
  { size: 7.4, pictures: 3 },
  { size: 7.4, pictures: 0 },
] as const;
const IN_A_ROW = 3;
const GAP = 10;
/** Height of a picture at most, points. */
const TALLEST = 130;

/** Kinds of picture that a PDF holds; another kind is told, not drawn. */
const DRAWN: readonly PaperPicture['type'][] = ['image/jpeg', 'image/png'];

function sectionOf({ title, lines, table }: ReportSection, task: ReportTask, size: number): Content[] {
  return [
    { text: paperText(title), bold: true, fontSize: size * 1.25, margin: [0, 7, 0, 2] },
    ...lines.map(
      ({ text, at }): Content => ({
        text: paperText(at === undefined ? text : `${text} ${paperMoment(at, task)}.`),
        margin: [0, 0, 0, 2],
      }),
    ),
    ...(table === null
      ? []
      : [
          {
            table: {
              headerRows: 1,
              dontBreakRows: true,
              widths: table.head.map((_, at) => (table.figures[at] ? 'auto' : '*')),
              body: [table.head, ...table.rows].map((row, line) =>
                row.map(
                  (text, at): TableCell => ({
                    text: paperText(text, table.figures[at] && line > 0 ? 'Figures' : 'Text'),
                    bold: line === 0,
                    alignment: table.figures[at] ? 'right' : 'left',
                    noWrap: table.figures[at] === true && line > 0,
                    fontSize: size * 0.92,
                  }),
                ),
              ),
            },
            layout: 'lightHorizontalLines',
            margin: [0, 2, 0, 4] as [number, number, number, number],
          },
        ]),
  ];
}

function picturesOf(pictures: readonly PaperPicture[], width: number, size: number): Content[] {
  const each = (width - (IN_A_ROW - 1) * GAP) / IN_A_ROW;
  const rows = Array.from({ length: Math.ceil(pictures.length / IN_A_ROW) }, (_, at) =>
    pictures.slice(at * IN_A_ROW, (at + 1) * IN_A_ROW),
  );
  return rows.map(
    (row): Content => ({
      columns: row.map(({ caption, type, data }) => ({
        width: each,
        stack: [
          { image: `data:${type};base64,${Buffer.from(data).toString('base64')}`, fit: [each, TALLEST] },
          { text: paperText(caption), fontSize: size * 0.85, margin: [0, 2, 0, 0] },
        ],
      })),
      columnGap: GAP,
      unbreakable: true,
      margin: [0, 4, 0, 4],
    }),
  );
}

function definition(
  task: ReportTask,
  shown: readonly PaperPicture[],
  left: number,
  size: number,
  onPages: (pages: number) => void,
): Definition {
  const { report, signed, paper } = task;
  const width = WIDTHS[paper] - 2 * MARGIN;
  const foot = `${report.engine} · build sheet revision ${signed.revision} · SHA-256 ${signed.hash}`;
  const [first, second, ...rest] = report.sections;
  const section = (one: ReportSection | undefined) => (one ? sectionOf(one, task, size) : []);
  return {
    pageSize: paper === 'A4' ? 'A4' : 'LETTER',
    pageMargins: [MARGIN, MARGIN - 4, MARGIN, MARGIN + 2],
    info: { title: `${report.engine}: report`, subject: 'Report for the customer' },
    defaultStyle: { font: 'Text', fontSize: size, lineHeight: 1.12 },
    footer: (page: number, pages: number): Content => {
      onPages(pages);
      return {
        columns: [
          { text: paperText(foot), width: '*' },
          { text: `${page} of ${pages}`, width: 'auto' },
        ],
        margin: [MARGIN, 8, MARGIN, 0],
        fontSize: 6,
      };
    },
    content: [
      { text: paperText(report.engine), bold: true, fontSize: 18 },
      {
        text: paperText(`Report on its bearings${report.serial === '' ? '' : ` · serial number ${report.serial}`}`),
        fontSize: size * 1.1,
      },
      ...section(first),
      ...picturesOf(shown, width, size),
      ...(left === 0
        ? []
        : [
            {
              text: paperText(
                `${left} ${shown.length === 0 ? '' : 'more '}${left === 1 ? 'picture is' : 'pictures are'} kept with the engine.`,
              ),
              fontSize: size * 0.85,
            },
          ]),
      ...section(second),
      ...rest.flatMap(section),
    ],
  };
}

/** Puts a customer’s report on paper: two pages at most, set smaller and with fewer pictures if it must be. Runs in a worker thread. */
export async function reportPdf(task: ReportTask): Promise<Uint8Array> {
  const drawn = task.pictures.filter(({ type }) => DRAWN.includes(type));
  const all = task.pictures.length + task.more;
  const laidOut = async (most: number, size: number) => {
    const shown = drawn.slice(0, most);
    let pages = 0;
    const made = definition(task, shown, all - shown.length, size, (count) => {
      pages = count;
    });
    return { pdf: await pdfOf(made), pages };
  };
  let last: Uint8Array | null = null;
  for (const { size, pictures } of TRIES) {
    try {
      const { pdf, pages } = await laidOut(pictures, size);
      console.log(size, pictures, pages);
      if (pages <= MOST_PAGES) return pdf;
      last = pdf;
    } catch (error) {
      // A picture that is damaged inside cannot be drawn; the report says how many are kept, and is not held up by it.
      if (pictures === 0 || drawn.length === 0) throw error;
    }
  }
  // Longer than two pages however small: all of it, on as many as it takes.
  return last ?? (await laidOut(0, TRIES[0].size)).pdf;
}
