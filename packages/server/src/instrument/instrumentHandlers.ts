import type { EndpointName } from '@fettle/core';
import type { Database } from '../database/Database.js';
import { Reply } from '../wire/Reply.js';
import type { HandlersOf } from '../wire/serve.js';
import type { InstrumentService } from './instrumentService.js';
import { instrumentRepeats, touchedEngines } from './readWithInstrument.js';
import type { StudyService } from './studyService.js';

type InstrumentNames = Extract<
  EndpointName,
  | 'listInstruments'
  | 'getInstrument'
  | 'putInstrument'
  | 'putCalibration'
  | 'doubtCalibration'
  | 'putZeroCheck'
  | 'instrumentEngines'
  | 'instrumentRepeats'
  | 'getCertificate'
  | 'listStudies'
  | 'putStudy'
  | 'getStudy'
  | 'enterStudy'
  | 'takeStudy'
>;

/** The register of instruments, and their gauge studies. */
export function instrumentHandlers(
  instruments: InstrumentService,
  studies: StudyService,
  { manager }: Database,
): HandlersOf<InstrumentNames> {
  return {
    listInstruments: () => instruments.list(),
    getInstrument: ({ path }) => instruments.get(path.id),
    putInstrument: async ({ path, body }) =>
      new Reply(body.revision === 0 ? 201 : 200, await instruments.put(path.id, body)),
    putCalibration: async ({ path, body }) => {
      const { isNew, view } = await instruments.calibrate(path.id, path.calibration, body);
      return new Reply(isNew ? 201 : 200, view);
    },
    doubtCalibration: ({ path, body }) => instruments.doubt(path.id, path.calibration, body),
    putZeroCheck: async ({ path, body }) => {
      const { isNew, view } = await instruments.check(path.id, path.check, body);
      return new Reply(isNew ? 201 : 200, view);
    },
    listStudies: ({ path }) => studies.list(path.id),
    putStudy: async ({ path, body }, { access }) => {
      const { isNew, view } = await studies.put(path.id, path.study, body, access.person?.name ?? null);
      return new Reply(isNew ? 201 : 200, view);
    },
    getStudy: ({ path, query }, { access }) =>
      studies.get(path.id, path.study, query.person, access.person?.name ?? null),
    enterStudy: ({ path, body }, { access }) => studies.enter(path.id, path.study, body, access.person?.name ?? null),
    takeStudy: ({ path, body }) => studies.take(path.id, path.study, body.by),
    instrumentRepeats: async ({ path }) => instrumentRepeats(manager, await instruments.get(path.id)),
    instrumentEngines: async ({ path }) => touchedEngines(manager, await instruments.get(path.id)),
    getCertificate: async ({ path }) => {
      const { type, data } = await instruments.certificate(path.id, path.calibration);
      // A certificate is a file of somebody else's: it is saved, and shows nothing within the page.
      const headers = { 'content-type': type, 'cache-control': 'no-store', 'content-disposition': 'attachment' };
      return new Reply<unknown>(200, data, headers);
    },
  };
}
