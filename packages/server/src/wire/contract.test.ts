import { randomUUID } from 'node:crypto';
import { ENDPOINTS, type EndpointName, endpointOf, newEngineType, newInstrument } from '@fettle/core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Answer, runningServer } from '../testing/runningServer.js';
import { LAYOUT, READING, startedEngine } from '../testing/samples.js';
import { OWNER, signedInServer, type Workshop } from '../testing/signedInServer.js';

let server: Awaited<ReturnType<typeof runningServer>>;
/** The same beyond this machine, where one signs in. */
let workshop: Workshop;
beforeAll(async () => {
  server = await runningServer();
  workshop = await signedInServer();
});
afterAll(async () => {
  await server.close();
  await workshop.close();
});

const by = 'Wren';

async function started(): Promise<string> {
  const id = randomUUID();
  await server.call('POST', '/api/jobs', { id, by, document: startedEngine() });
  return id;
}

const half = { family: 'main', series: 'A', grade: 'Teal', half: 'either', wall: 2_000_000, onHand: 6 };

async function inDrawer(): Promise<string> {
  const id = randomUUID();
  const changes = [{ id, version: 0, half }];
  await server.call('POST', '/api/drawer/move', { by, kind: 'receive', note: '', changes });
  return id;
}

async function moved(): Promise<string> {
  await inDrawer();
  const { body } = await server.call('GET', '/api/drawer/history');
  return body.entries[0].id;
}

const stack = {
  format: 'fettle.shim-request/1',
  unit: 'mm',
  kind: 'ring-shims',
  low: 0.07,
  high: 0.15,
  aim: 0.1,
  gap: 0.58,
  counts: [2],
  pieces: [{ id: 'A', thickness: 0.24, stock: 2 }],
};

const kit = { name: 'One of each', note: '', halves: [{ ...half, onHand: undefined, count: 2 }] };

async function keptKit(): Promise<string> {
  const id = randomUUID();
  await server.call('PUT', `/api/drawer/kits/${id}`, { version: 0, by, kit });
  return id;
}

async function keptType(): Promise<string> {
  const id = randomUUID();
  await server.call('PUT', `/api/types/${id}`, { revision: 0, by, type: newEngineType('Rush Twin', 'mm', LAYOUT) });
  return id;
}

const gauge = { ...newInstrument('boreGauge', 'mm'), needle: 'smaller' };

async function registered(): Promise<string> {
  const id = randomUUID();
  const instrument = { ...gauge, number: id.slice(0, 8) };
  await server.call('PUT', `/api/instruments/${id}`, { revision: 0, by, instrument });
  return id;
}

const calibration = { on: '2026-03-01', due: null, laboratory: '', certificate: 'C 12', points: [] };
const check = { at: '2026-11-30T08:00:00.000Z', by, standard: 64_000_000, shown: 0, isReset: true };

const plan = { name: 'Bores', unit: 'mm', parts: ['1', '2'], people: ['Wren', 'Teasel'], trials: 2, tolerance: null };
const entry = {
  part: '1',
  person: 'Wren',
  trial: 1,
  text: '64.01',
  nm: 64_010_000,
  by,
  at: '2026-11-30T08:00:00.000Z',
};

async function studied(): Promise<{ id: string; study: string }> {
  const path = { id: await registered(), study: randomUUID() };
  await ask('putStudy', path, { by, plan });
  return path;
}

/** A choice of the only kind of half at the first main, which the engine draws from the workshop. */
async function reserving(): Promise<{ id: string; version: number; choice: object }> {
  const line = await inDrawer();
  const id = await started();
  const shell = { family: 'main', series: 'A', grade: 'Teal', half: 'either', wall: 2_000_000, stock: null, line };
  const steps = [{ op: 'add', path: '/shells/teal', value: shell }];
  await server.call('PATCH', `/api/jobs/${id}`, { version: 1, by, steps });
  const one = { shell: 'teal', label: 'Teal either (A)', wall: 2_000_000 };
  const stations = { M1: { upper: one, lower: one, predicted: 40_000, rod: null } };
  return { id, version: 2, choice: { at: '2026-01-02T03:04:05.000Z', by, stations } };
}

async function fitted(): Promise<string> {
  const { id, version, choice } = await reserving();
  await server.call('POST', '/api/drawer/accept', { by, jobs: [{ id, version, choice }] });
  return id;
}

const draft = { ...READING, by };

/** Asks an endpoint; the path's names are filled in. */
function ask(name: EndpointName, path: Record<string, string>, body?: unknown, query = ''): Promise<Answer> {
  const { method, at } = endpointOf(name);
  return server.call(method.toUpperCase(), at.replaceAll(/\{(\w+)\}/gu, (_, key) => path[key]!) + query, body);
}

const nobody = randomUUID();

interface Case {
  /** Good requests with the status each must get. */
  readonly good: () => Promise<[Answer, number][]>;
  /** What is not valid, and the path of its first fault. */
  readonly bad?: () => Promise<[Answer, string]>;
  /** Something that is not there. */
  readonly unknown?: () => Promise<Answer>;
}

const request = {
  format: 'fettle.fit-request/1',
  unit: 'mm',
  stations: [{ id: 'M1', family: 'main', journal: 59.981, aim: 0.04, low: 0.02, high: 0.06 }],
  housings: [{ id: 'B1', family: 'main', bore: 64.012, station: 'M1' }],
  shells: [{ id: 'teal', family: 'main', series: 'A', half: 'either', wall: 1.995, stock: 4 }],
};

/** A picture of one dot. */
const DOT = 'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==';
const photo = { by, type: 'image/png', data: DOT };
const certificate = { name: 'c12.png', type: 'image/png', data: DOT };

async function calibrated(): Promise<{ id: string; calibration: string }> {
  const path = { id: await registered(), calibration: randomUUID() };
  await ask('putCalibration', path, { by, calibration, file: certificate });
  return path;
}

async function kept(): Promise<Record<string, string>> {
  const path = { id: await started(), photo: randomUUID() };
  await ask('putPhoto', path, photo);
  return path;
}

async function signed(): Promise<string> {
  const id = await started();
  await ask('signSheet', { id }, { by, seen: 1, revision: 1 });
  return id;
}

/** What is known is asked for with the same narrowing everywhere. */
function knownCases<Name extends EndpointName>(names: readonly Name[]): Record<Name, Case> {
  return Object.fromEntries(
    names.map((name): [Name, Case] => [
      name,
      {
        good: async () => [[await ask(name, {}, undefined, '?type=Sedge%204&from=2026-01-01'), 200]],
        bad: async () => [await ask(name, {}, undefined, '?from=June'), '/from'],
      },
    ]),
  ) as Record<Name, Case>;
}

/** An engine that tells the workshop something. */
async function telling(): Promise<string[]> {
  const id = await started();
  const stations = {};
  const steps = [{ op: 'add', path: '/choice', value: { at: '2026-01-02T03:04:05.000Z', by, stations } }];
  await ask('patchJob', { id }, { version: 1, by, steps });
  await expect
    .poll(
      async () =>
        (await ask('knownEngines', {}, undefined, '?most=200')).body.engines.map((one: { id: string }) => one.id),
      {
        timeout: 20_000,
      },
    )
    .toContain(id);
  return [id];
}

/** One case for each endpoint: a new one without a case is a fault of types. */
const CASES: Record<EndpointName, Case> = {
  health: { good: async () => [[await ask('health', {}), 200]] },
  listJobs: {
    good: async () => [[await ask('listJobs', {}), 200]],
    bad: async () => [await ask('listJobs', {}, undefined, '?most=0'), '/most'],
  },
  listDue: {
    good: async () => [[await ask('listDue', {}, undefined, '?until=2026-03-01'), 200]],
    bad: async () => [await ask('listDue', {}, undefined, '?until=tomorrow'), '/until'],
  },
  knownScope: { good: async () => [[await ask('knownScope', {}), 200]] },
  ...knownCases(['knownOffsets', 'knownMarks', 'knownWalls', 'knownUse', 'knownReaders', 'knownTrust', 'knownEngines']),
  leaveOut: {
    good: async () => {
      const [id] = await telling();
      return [[await ask('leaveOut', { id: id! }, { by, reason: 'gauge was wrong' }), 200]];
    },
    bad: async () => [await ask('leaveOut', { id: randomUUID() }, { by, reason: '' }), '/reason'],
    unknown: () => ask('leaveOut', { id: nobody }, { by, reason: null }),
  },
  listBuilds: {
    good: async () => [[await ask('listBuilds', {}, undefined, '?serial=S4%200101'), 200]],
    bad: async () => [await ask('listBuilds', {}, undefined, `?serial=${'9'.repeat(41)}`), '/serial'],
  },
  createJob: {
    good: async () => {
      const body = { id: randomUUID(), by, document: startedEngine() };
      return [
        [await ask('createJob', {}, body), 201],
        [await ask('createJob', {}, body), 200],
      ];
    },
    bad: async () => [await ask('createJob', {}, { id: randomUUID(), by: '', document: startedEngine() }), '/by'],
  },
  getJob: {
    good: async () => [[await ask('getJob', { id: await started() }), 200]],
    bad: async () => [await ask('getJob', { id: 'M1' }), '/id'],
    unknown: () => ask('getJob', { id: nobody }),
  },
  patchJob: {
    good: async () => {
      const steps = [{ op: 'add', path: '/name', value: 'Rush Twin B' }];
      return [[await ask('patchJob', { id: await started() }, { version: 1, by, steps }), 200]];
    },
    bad: async () => [await ask('patchJob', { id: await started() }, { version: 1, by, steps: [] }), '/steps'],
    unknown: () => ask('patchJob', { id: nobody }, { version: 1, by, steps: [{ op: 'remove', path: '/shells/teal' }] }),
  },
  deleteJob: {
    good: async () => [[await ask('deleteJob', { id: await started() }, undefined, '?version=1&by=Wren'), 200]],
    bad: async () => [await ask('deleteJob', { id: await started() }, undefined, '?version=1'), '/by'],
    unknown: () => ask('deleteJob', { id: nobody }, undefined, '?version=1&by=Wren'),
  },
  restoreJob: {
    good: async () => [[await ask('restoreJob', { id: await started() }, { version: 1, by }), 200]],
    bad: async () => [await ask('restoreJob', { id: await started() }, { by }), '/version'],
    unknown: () => ask('restoreJob', { id: nobody }, { version: 1, by }),
  },
  fastenerMoves: { good: async () => [[await ask('fastenerMoves', {}), 200]] },
  jobHistory: {
    good: async () => [[await ask('jobHistory', { id: await started() }), 200]],
    bad: async () => [await ask('jobHistory', { id: await started() }, undefined, '?after=yesterday'), '/after'],
    unknown: () => ask('jobHistory', { id: nobody }),
  },
  putReading: {
    good: async () => {
      const path = { id: await started(), reading: randomUUID() };
      return [
        [await ask('putReading', path, draft), 201],
        [await ask('putReading', path, draft), 200],
      ];
    },
    bad: async () => {
      const path = { id: await started(), reading: randomUUID() };
      return [await ask('putReading', path, { ...draft, slot: 'sideways' }), '/slot'];
    },
    unknown: () => ask('putReading', { id: nobody, reading: randomUUID() }, draft),
  },
  listDrawer: {
    good: async () => [[await ask('listDrawer', {}), 200]],
    bad: async () => [await ask('listDrawer', {}, undefined, '?job=M1'), '/job'],
  },
  listPieces: {
    good: async () => {
      const piece = { kind: 'ring', name: 'Thin', thickness: 240_000, onHand: 2 };
      const changes = [{ id: randomUUID(), version: 0, piece }];
      const put = await ask('moveDrawer', {}, { by, kind: 'receive', note: '', changes });
      return [
        [await ask('listPieces', {}), 200],
        [put, 200],
      ];
    },
    bad: async () => [await ask('listPieces', {}, undefined, '?job=M1'), '/job'],
  },
  moveDrawer: {
    good: async () => {
      const changes = [{ id: randomUUID(), version: 0, half }];
      return [[await ask('moveDrawer', {}, { by, kind: 'receive', note: '', changes }), 200]];
    },
    bad: async () => {
      const changes = [{ id: randomUUID(), version: 0, half: { ...half, onHand: -1 } }];
      return [await ask('moveDrawer', {}, { by, kind: 'receive', changes }), '/changes/0/half/onHand'];
    },
    unknown: () => ask('moveDrawer', {}, { by, kind: 'remove', changes: [{ id: nobody, version: 0, half: null }] }),
  },
  drawerHistory: {
    good: async () => [[await ask('drawerHistory', {}), 200]],
    bad: async () => [await ask('drawerHistory', {}, undefined, '?line=Teal'), '/line'],
  },
  undoMovement: {
    good: async () => [[await ask('undoMovement', { id: await moved() }, { by }), 200]],
    bad: async () => [await ask('undoMovement', { id: await moved() }, {}), '/by'],
    unknown: () => ask('undoMovement', { id: nobody }, { by }),
  },
  listKits: { good: async () => [[await ask('listKits', {}), 200]] },
  putKit: {
    good: async () => {
      const id = randomUUID();
      return [
        [await ask('putKit', { id }, { version: 0, by, kit }), 201],
        [await ask('putKit', { id }, { version: 1, by, kit }), 200],
      ];
    },
    bad: async () => [
      await ask('putKit', { id: randomUUID() }, { version: 0, by, kit: { ...kit, halves: [] } }),
      '/kit/halves',
    ],
  },
  deleteKit: {
    good: async () => [[await ask('deleteKit', { id: await keptKit() }, undefined, '?version=1&by=Wren'), 200]],
    bad: async () => [await ask('deleteKit', { id: 'one' }, undefined, '?version=1&by=Wren'), '/id'],
  },
  acceptTogether: {
    good: async () => [[await ask('acceptTogether', {}, { by, jobs: [await reserving()] }), 200]],
    bad: async () => [await ask('acceptTogether', {}, { by, jobs: [] }), '/jobs'],
    unknown: async () => ask('acceptTogether', {}, { by, jobs: [{ ...(await reserving()), id: nobody }] }),
  },
  setFitted: {
    good: async () => [[await ask('setFitted', { id: await fitted() }, { by, fitted: true }), 200]],
    bad: async () => [await ask('setFitted', { id: await fitted() }, { by, fitted: 'yes' }), '/fitted'],
    unknown: () => ask('setFitted', { id: nobody }, { by, fitted: true }),
  },
  listTypes: {
    good: async () => [[await ask('listTypes', {}), 200]],
    bad: async () => [await ask('listTypes', {}, undefined, '?archived=perhaps'), '/archived'],
  },
  getType: {
    good: async () => [[await ask('getType', { id: await keptType() }), 200]],
    bad: async () => [await ask('getType', { id: 'sedge' }), '/id'],
    unknown: () => ask('getType', { id: nobody }),
  },
  typeRevisions: {
    good: async () => [[await ask('typeRevisions', { id: await keptType() }), 200]],
    bad: async () => [await ask('typeRevisions', { id: 'sedge' }), '/id'],
    unknown: () => ask('typeRevisions', { id: nobody }),
  },
  putType: {
    good: async () => {
      const id = randomUUID();
      const type = newEngineType('Sedge 4', 'mm', LAYOUT);
      return [
        [await ask('putType', { id }, { revision: 0, by, type }), 201],
        [await ask('putType', { id }, { revision: 1, by, type }), 200],
      ];
    },
    bad: async () => {
      const type = { ...newEngineType('Sedge 4', 'mm', LAYOUT), name: '' };
      return [await ask('putType', { id: randomUUID() }, { revision: 0, by, type }), '/type/name'];
    },
  },
  archiveType: {
    good: async () => [[await ask('archiveType', { id: await keptType() }, { by, archived: true }), 200]],
    bad: async () => [await ask('archiveType', { id: await keptType() }, { by }), '/archived'],
    unknown: () => ask('archiveType', { id: nobody }, { by, archived: true }),
  },
  listSheets: {
    good: async () => [[await ask('listSheets', { id: await signed() }), 200]],
    bad: async () => [await ask('listSheets', { id: 'M1' }), '/id'],
    unknown: () => ask('listSheets', { id: nobody }),
  },
  signSheet: {
    good: async () => [[await ask('signSheet', { id: await started() }, { by, seen: 1, revision: 1 }), 201]],
    bad: async () => [await ask('signSheet', { id: await signed() }, { by, seen: 1, revision: 2 }), '/reason'],
    unknown: () => ask('signSheet', { id: nobody }, { by, seen: 1, revision: 1 }),
  },
  getSheet: {
    good: async () => [[await ask('getSheet', { id: await signed(), revision: '1' }), 200]],
    bad: async () => [await ask('getSheet', { id: nobody, revision: 'first' }), '/revision'],
    unknown: () => ask('getSheet', { id: nobody, revision: '1' }),
  },
  sheetPdf: {
    good: async () => [[await ask('sheetPdf', { id: await started() }, undefined, '?paper=Letter'), 200]],
    bad: async () => [await ask('sheetPdf', { id: nobody }, undefined, '?paper=A5'), '/paper'],
    unknown: () => ask('sheetPdf', { id: nobody }),
  },
  signedPdf: {
    good: async () => [[await ask('signedPdf', { id: await signed(), revision: '1' }), 200]],
    bad: async () => [await ask('signedPdf', { id: nobody, revision: '1' }, undefined, '?zone=Saltmarsh'), '/zone'],
    unknown: () => ask('signedPdf', { id: nobody, revision: '1' }),
  },
  reportPdf: {
    good: async () => [[await ask('reportPdf', { id: await signed(), revision: '1' }, undefined, '?names=yes'), 200]],
    bad: async () => [await ask('reportPdf', { id: nobody, revision: '1' }, undefined, '?names=perhaps'), '/names'],
    unknown: () => ask('reportPdf', { id: nobody, revision: '1' }),
  },
  listInstruments: { good: async () => [[await ask('listInstruments', {}), 200]] },
  getInstrument: {
    good: async () => [[await ask('getInstrument', { id: await registered() }), 200]],
    bad: async () => [await ask('getInstrument', { id: 'three' }), '/id'],
    unknown: () => ask('getInstrument', { id: nobody }),
  },
  putInstrument: {
    good: async () => {
      const id = randomUUID();
      const instrument = { ...gauge, number: id.slice(0, 8) };
      return [
        [await ask('putInstrument', { id }, { revision: 0, by, instrument }), 201],
        [await ask('putInstrument', { id }, { revision: 1, by, instrument: { ...instrument, state: 'out' } }), 200],
      ];
    },
    bad: async () => {
      const instrument = { ...gauge, number: '9', needle: null };
      return [await ask('putInstrument', { id: randomUUID() }, { revision: 0, by, instrument }), '/instrument/needle'];
    },
  },
  putCalibration: {
    good: async () => {
      const path = { id: await registered(), calibration: randomUUID() };
      const body = { by, calibration, file: certificate };
      return [
        [await ask('putCalibration', path, body), 201],
        [await ask('putCalibration', path, body), 200],
      ];
    },
    bad: async () => {
      const points = [2, 1].map((at) => ({ at, error: 0, expanded: 0, factor: 2 }));
      const path = { id: await registered(), calibration: randomUUID() };
      const body = { by, calibration: { ...calibration, points }, file: null };
      return [await ask('putCalibration', path, body), '/calibration/points/1/at'];
    },
    unknown: () => ask('putCalibration', { id: nobody, calibration: randomUUID() }, { by, calibration, file: null }),
  },
  doubtCalibration: {
    good: async () => [[await ask('doubtCalibration', await calibrated(), { by, reason: 'ball worn flat' }), 200]],
    bad: async () => [await ask('doubtCalibration', await calibrated(), { by, reason: '' }), '/reason'],
    unknown: () => ask('doubtCalibration', { id: nobody, calibration: nobody }, { by, reason: null }),
  },
  putZeroCheck: {
    good: async () => {
      const path = { id: await registered(), check: randomUUID() };
      return [
        [await ask('putZeroCheck', path, check), 201],
        [await ask('putZeroCheck', path, check), 200],
      ];
    },
    bad: async () => {
      const path = { id: await registered(), check: randomUUID() };
      return [await ask('putZeroCheck', path, { ...check, standard: -1 }), '/standard'];
    },
    unknown: () => ask('putZeroCheck', { id: nobody, check: randomUUID() }, check),
  },
  listStudies: {
    good: async () => [[await ask('listStudies', { id: (await studied()).id }), 200]],
    bad: async () => [await ask('listStudies', { id: 'three' }), '/id'],
    unknown: () => ask('listStudies', { id: nobody }),
  },
  putStudy: {
    good: async () => {
      const path = { id: await registered(), study: randomUUID() };
      return [
        [await ask('putStudy', path, { by, plan }), 201],
        [await ask('putStudy', path, { by, plan }), 200],
      ];
    },
    bad: async () => {
      const path = { id: await registered(), study: randomUUID() };
      return [await ask('putStudy', path, { by, plan: { ...plan, people: ['Wren'] } }), '/plan/people'];
    },
    unknown: () => ask('putStudy', { id: nobody, study: randomUUID() }, { by, plan }),
  },
  getStudy: {
    good: async () => [[await ask('getStudy', await studied(), undefined, '?person=Wren'), 200]],
    bad: async () => [await ask('getStudy', { id: nobody, study: 'one' }), '/study'],
    unknown: () => ask('getStudy', { id: nobody, study: nobody }),
  },
  enterStudy: {
    good: async () => [[await ask('enterStudy', await studied(), entry), 200]],
    bad: async () => [await ask('enterStudy', await studied(), { ...entry, part: '3' }), '/part'],
    unknown: () => ask('enterStudy', { id: nobody, study: nobody }, entry),
  },
  takeStudy: {
    good: async () => {
      const path = await studied();
      for (const person of plan.people) {
        for (const [at, part] of ['1', '2', '1', '2'].entries()) {
          const one = { ...entry, person, part, trial: at < 2 ? 1 : 2, nm: 64_010_000 + at * 1000 };
          await ask('enterStudy', path, one);
        }
      }
      return [[await ask('takeStudy', path, { by }), 200]];
    },
    bad: async () => [await ask('takeStudy', await studied(), { by }), '/by'],
    unknown: () => ask('takeStudy', { id: nobody, study: nobody }, { by }),
  },
  instrumentRepeats: {
    good: async () => [[await ask('instrumentRepeats', { id: await registered() }), 200]],
    bad: async () => [await ask('instrumentRepeats', { id: 'three' }), '/id'],
    unknown: () => ask('instrumentRepeats', { id: nobody }),
  },
  instrumentEngines: {
    good: async () => [[await ask('instrumentEngines', { id: await registered() }), 200]],
    bad: async () => [await ask('instrumentEngines', { id: 'three' }), '/id'],
    unknown: () => ask('instrumentEngines', { id: nobody }),
  },
  getCertificate: {
    good: async () => [[await ask('getCertificate', await calibrated()), 200]],
    bad: async () => [await ask('getCertificate', { id: nobody, calibration: 'one' }), '/calibration'],
    unknown: () => ask('getCertificate', { id: nobody, calibration: nobody }),
  },
  putPhoto: {
    good: async () => {
      const path = { id: await started(), photo: randomUUID() };
      return [
        [await ask('putPhoto', path, photo), 201],
        [await ask('putPhoto', path, photo), 200],
      ];
    },
    bad: async () => {
      const path = { id: await started(), photo: randomUUID() };
      return [await ask('putPhoto', path, { ...photo, type: 'image/jpeg' }), '/data'];
    },
    unknown: () => ask('putPhoto', { id: nobody, photo: randomUUID() }, photo),
  },
  getPhoto: {
    good: async () => [[await ask('getPhoto', await kept()), 200]],
    bad: async () => [await ask('getPhoto', { id: nobody, photo: 'one' }), '/photo'],
    unknown: () => ask('getPhoto', { id: nobody, photo: nobody }),
  },
  getSession: { good: async () => [[await ask('getSession', {}), 200]] },
  signIn: {
    good: async () => [[await workshop.stranger().ask('POST', '/api/session', OWNER), 200]],
    bad: async () => [await workshop.stranger().ask('POST', '/api/session', { name: '', password: 'x' }), '/name'],
  },
  signOut: { good: async () => [[await ask('signOut', {}), 200]] },
  makeOwner: {
    good: async () => {
      const fresh = await signedInServer({ hasOwner: false });
      const made = await fresh.stranger().ask('POST', '/api/session/first', { code: 'the-code', ...OWNER });
      await fresh.close();
      return [[made, 201]];
    },
    bad: async () => [
      await workshop.stranger().ask('POST', '/api/session/first', { ...OWNER, code: 'a', password: 'short' }),
      '/password',
    ],
  },
  changePassword: {
    good: async () => {
      const { someone, password } = await workshop.added('fitter');
      return [
        [
          await someone.ask('PUT', '/api/session/password', {
            current: password,
            password: 'bearing shells and shims',
          }),
          200,
        ],
      ];
    },
    bad: async () => [
      await workshop.owner.ask('PUT', '/api/session/password', { current: OWNER.password, password: 'short' }),
      '/password',
    ],
  },
  confirmPassword: {
    good: async () => [[await workshop.owner.ask('POST', '/api/session/password', { password: OWNER.password }), 200]],
    bad: async () => [await workshop.owner.ask('POST', '/api/session/password', { password: '' }), '/password'],
  },
  setPin: {
    good: async () => [
      [await workshop.owner.ask('PUT', '/api/session/pin', { current: OWNER.password, pin: '4711' }), 200],
    ],
    bad: async () => [
      await workshop.owner.ask('PUT', '/api/session/pin', { current: OWNER.password, pin: 'abcd' }),
      '/pin',
    ],
  },
  listPeople: { good: async () => [[await workshop.owner.ask('GET', '/api/people'), 200]] },
  addPerson: {
    good: async () => [[await workshop.owner.ask('POST', '/api/people', { name: randomUUID(), role: 'stores' }), 201]],
    bad: async () => [await workshop.owner.ask('POST', '/api/people', { name: 'Finch', role: 'king' }), '/role'],
  },
  changePerson: {
    good: async () => {
      const { id } = await workshop.added('fitter');
      return [[await workshop.owner.ask('PATCH', `/api/people/${id}`, { role: 'reader' }), 200]];
    },
    bad: async () => [await workshop.owner.ask('PATCH', `/api/people/${nobody}`, {}), ''],
    unknown: () => workshop.owner.ask('PATCH', `/api/people/${nobody}`, { retired: true }),
  },
  resetPerson: {
    good: async () => {
      const { id } = await workshop.added('fitter');
      return [[await workshop.owner.ask('POST', `/api/people/${id}/reset`, {}), 200]];
    },
    bad: async () => [await workshop.owner.ask('POST', '/api/people/finch/reset', {}), '/id'],
    unknown: () => workshop.owner.ask('POST', `/api/people/${nobody}/reset`, {}),
  },
  listDevices: { good: async () => [[await workshop.owner.ask('GET', '/api/devices'), 200]] },
  inviteDevice: {
    good: async () => [[await workshop.owner.ask('POST', '/api/devices/invitations', { to: '/drawer' }), 201]],
    bad: async () => [await workshop.owner.ask('POST', '/api/devices/invitations', { to: '//elsewhere' }), '/to'],
  },
  letIn: {
    good: async () => {
      const phone = workshop.stranger();
      return [[await phone.ask('POST', '/api/devices', { code: await workshop.invited(), name: 'Phone' }), 201]];
    },
    bad: async () => [await workshop.stranger().ask('POST', '/api/devices', { code: 'x', name: '' }), '/name'],
  },
  revokeDevice: {
    good: async () => {
      const phone = workshop.stranger();
      const { body } = await phone.ask('POST', '/api/devices', { code: await workshop.invited(), name: 'Phone' });
      return [[await workshop.owner.ask('DELETE', `/api/devices/${body.session.device.id}`), 200]];
    },
    bad: async () => [await workshop.owner.ask('DELETE', '/api/devices/phone'), '/id'],
    unknown: () => workshop.owner.ask('DELETE', `/api/devices/${nobody}`),
  },
  listAudit: {
    good: async () => [[await workshop.owner.ask('GET', '/api/audit?most=5'), 200]],
    bad: async () => [await workshop.owner.ask('GET', '/api/audit?kind=weather'), '/kind'],
  },
  auditCsv: {
    good: async () => [[await workshop.owner.ask('GET', '/api/audit.csv'), 200]],
    bad: async () => [await workshop.owner.ask('GET', '/api/audit.csv?from=yesterday'), '/from'],
  },
  sayWhere: {
    good: async () => [
      [await ask('sayWhere', {}, { tab: 'tab-of-a-test', engine: null, stage: null, part: 'M3', by }), 200],
    ],
    bad: async () => [await ask('sayWhere', {}, { tab: 'x', engine: null, stage: null, part: null, by }), '/tab'],
  },
  tellUnsent: {
    good: async () => [[await ask('tellUnsent', { browser: randomUUID() }, { changes: [], more: 2 }), 200]],
    bad: async () => [await ask('tellUnsent', { browser: randomUUID() }, { changes: [], more: -1 }), '/more'],
  },
  listMissing: {
    good: async () => [[await ask('listMissing', {}, undefined, `?browser=${randomUUID()}`), 200]],
    bad: async () => [await ask('listMissing', {}, undefined, '?browser=mine'), '/browser'],
  },
  forgetUnsent: {
    good: async () => [[await ask('forgetUnsent', { browser: randomUUID() }), 200]],
    bad: async () => [await ask('forgetUnsent', { browser: 'mine' }), '/browser'],
  },
  removeSamples: {
    good: async () => [[await ask('removeSamples', {}, { by }), 200]],
    bad: async () => [await ask('removeSamples', {}, { by: '' }), '/by'],
  },
  fit: {
    good: async () => [[await ask('fit', {}, request), 200]],
    bad: async () => [await ask('fit', {}, { ...request, unit: 'furlong' }), '/unit'],
  },
  shims: {
    good: async () => [
      [await ask('shims', {}, stack), 200],
      [await ask('shims', {}, { ...stack, low: 0.3, high: 0.4, aim: 0.3 }), 200],
    ],
    bad: async () => [await ask('shims', {}, { ...stack, aim: 9 }), '/aim'],
  },
};

describe('shims', () => {
  it('come from a worker thread, and are refused where they cannot be gone through', async () => {
    const good = await server.call('POST', '/api/shims', stack);
    // By hand: 0.58 − 2 × 0.24 = 0.1.
    expect(good.body).toMatchObject({
      status: 'optimal',
      result: 0.1,
      chosen: [{ place: 'stack', id: 'A', count: 2 }],
    });
    const pieces = Array.from({ length: 400 }, (_, at) => ({ id: `${at}`, thickness: 0.2 + 1 / (at + 1.7), stock: 9 }));
    const { status, body } = await server.call('POST', '/api/shims', { ...stack, gap: 9, counts: [9], pieces });
    expect([status, body.errors[0].path]).toEqual([422, '/counts']);
  });
});

// Every answer is held against its endpoint's description by the server of the tests.
describe.each(Object.keys(ENDPOINTS) as EndpointName[])('%s', (name) => {
  const { good, bad, unknown } = CASES[name];
  const endpoint = endpointOf(name);

  it('does what it is asked, as it is described', async () => {
    for (const [answer, status] of await good()) expect(answer.status).toBe(status);
  });

  if (bad) {
    it('names the place of what is not valid', async () => {
      const [{ status, body }, path] = await bad();
      expect([status, body.errors?.[0]?.path]).toEqual([422, path]);
    });
  } else it('can be asked nothing that is not valid', () => expect(endpoint.problems).not.toContain('invalid-request'));

  if (unknown) {
    it('says what is not there', async () => {
      const { status, body } = await unknown();
      expect([status, body.type]).toEqual([404, '/api/docs#not-found']);
    });
  } else it('asks for nothing by id', () => expect(endpoint.problems).not.toContain('not-found'));

  if (endpoint.isTagged) {
    it('answers what has not changed without its body', async () => {
      const { method, at } = endpoint;
      const [[first]] = (await good()) as [[Answer, number]];
      expect(first.headers.get('etag')).toMatch(/^"[\w-]+-[\w/]+"$/u);
      if (at.includes('{')) return;
      // PostgreSQL may write something of its own in between, but not each time.
      const statuses: number[] = [];
      for (let times = 0; times < 5 && !statuses.includes(304); times += 1) {
        const etag = (await server.call(method, at)).headers.get('etag')!;
        statuses.push((await server.call(method, at, undefined, { 'if-none-match': etag })).status);
      }
      expect(statuses).toContain(304);
    });
  }
});
