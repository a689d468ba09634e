import { z } from 'zod';
import { codeSheetSchema } from './codes/codeSheet.js';
import { engineTypeSchema } from './engineType/engineType.js';
import { fitErrorSchema, fitPlanSchema } from './fit/format/fitPlan.js';
import { fitRequestSchema } from './fit/format/fitRequest.js';
import { shimPlanSchema } from './fit/format/shimPlan.js';
import { shimRequestSchema } from './fit/format/shimRequest.js';
import { studyFileSchema } from './instrument/studyFile.js';
import { jobDocumentSchema } from './job/jobDocument.js';
import { kitQuestionSchema } from './order/kitQuestion.js';
import { buildSheetSchema } from './sheet/buildSheetSchema.js';

const FORMATS = {
  'fit-request-1': { schema: fitRequestSchema, title: 'Fettle fit request, version 1' },
  'fit-plan-1': { schema: fitPlanSchema, title: 'Fettle fit plan, version 1' },
  'shim-request-1': { schema: shimRequestSchema, title: 'Fettle shim request, version 1' },
  'shim-plan-1': { schema: shimPlanSchema, title: 'Fettle shim plan, version 1' },
  'error-1': { schema: fitErrorSchema, title: 'Fettle error line, version 1' },
  'kit-question-1': { schema: kitQuestionSchema, title: 'Fettle kit question, version 1' },
  'code-sheet-1': { schema: codeSheetSchema, title: 'Fettle code sheet, version 1' },
  'engine-type-1': { schema: engineTypeSchema, title: 'Fettle engine type, version 1' },
  'build-sheet-1': { schema: buildSheetSchema, title: 'Fettle build sheet, version 1' },
  'gauge-study-1': { schema: studyFileSchema, title: 'Fettle gauge study, version 1' },
  job: { schema: jobDocumentSchema, title: 'Fettle job document' },
} as const;

/** The open formats as JSON Schemas (draft 2020-12) by file name, made from the schemas that read them. */
export function openFormats(): Record<string, object> {
  return Object.fromEntries(
    Object.entries(FORMATS).map(([name, { schema, title }]) => [
      name,
      { title, ...z.toJSONSchema(schema, { io: 'input' }) },
    ]),
  );
}
