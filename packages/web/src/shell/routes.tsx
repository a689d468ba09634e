import { FEATURE_TABLE, FEATURES, type Feature, STAGES, type Stage } from '@fettle/core';
import { createBrowserRouter, Navigate, type RouteObject } from 'react-router';
import { LET_IN_AT } from '../access/letInAt.js';
import { whenQuiet } from '../base/whenQuiet.js';
import { BenchList } from '../bench/BenchList.js';
import { lazily } from '../live/lazily.js';
import { Fault } from './Fault.js';
import { Frame, fetchAside } from './Frame.js';

const measuring = () => import('../measure/MeasureView.js');
const codes = () => import('../engineType/CodesEditor.js');

/** A view a stage, in the order in which they are fetched. A stage that has none does not compile. */
const STAGE_VIEWS: { readonly [Key in Stage]: ReturnType<typeof lazily> } = {
  ...(Object.fromEntries(
    FEATURES.map((feature) => [
      FEATURE_TABLE[feature].stage,
      lazily(async () => {
        const { MeasureView } = await measuring();
        return () => <MeasureView feature={feature} />;
      }),
    ]),
  ) as Record<(typeof FEATURE_TABLE)[Feature]['stage'], ReturnType<typeof lazily>>),
  data: lazily(async () => (await import('../engineType/DataSheet.js')).DataSheet),
  cameApart: lazily(async () => (await import('../cameApart/CameApartView.js')).CameApartView),
  codes: lazily(async () => (await import('../codes/CodesView.js')).CodesView),
  drawer: lazily(async () => (await import('../stock/StockView.js')).StockView),
  choose: lazily(async () => (await import('../choose/ChooseView.js')).ChooseView),
  trial: lazily(async () => (await import('../trial/TrialView.js')).TrialView),
  mainLine: lazily(async () => (await import('../mainLine/MainLineView.js')).MainLineView),
  runout: lazily(async () => (await import('../runout/RunoutView.js')).RunoutView),
  crush: lazily(async () => (await import('../crush/CrushView.js')).CrushView),
  endPlay: lazily(async () => (await import('../endPlay/EndPlayView.js')).EndPlayView),
  torque: lazily(async () => (await import('../torque/TorqueView.js')).TorqueView),
  assembly: lazily(async () => (await import('../assembly/AssemblyView.js')).AssemblyView),
  sheet: lazily(async () => (await import('../sheet/SheetView.js')).SheetView),
  running: lazily(async () => (await import('../running/RunningView.js')).RunningView),
};

/** The other views, those of an engine first: they are what is opened next. */
const VIEWS = {
  job: lazily(async () => (await import('../job/JobPage.js')).JobPage),
  labels: lazily(async () => (await import('../assembly/LabelsView.js')).LabelsView),
  history: lazily(async () => (await import('../history/HistoryView.js')).HistoryView),
  grinding: lazily(async () => (await import('../history/GrindingView.js')).GrindingView),
  order: lazily(async () => (await import('../order/JobOrder.js')).JobOrder),
  newEngine: lazily(async () => (await import('../bench/NewEngine.js')).NewEngine),
  drawer: lazily(async () => (await import('../drawer/WorkshopView.js')).WorkshopView),
  together: lazily(async () => (await import('../drawer/TogetherView.js')).TogetherView),
  me: lazily(async () => (await import('../access/Me.js')).Me),
  people: lazily(async () => (await import('../access/People.js')).People),
  audit: lazily(async () => (await import('../access/Audit.js')).Audit),
  letIn: lazily(async () => (await import('../access/LetIn.js')).LetIn),
  guide: lazily(async () => (await import('../guide/GuideView.js')).GuideView),
  sum: lazily(async () => (await import('../sum/SumView.js')).SumView),
  instruments: lazily(async () => (await import('../instrument/InstrumentList.js')).InstrumentList),
  instrument: lazily(async () => (await import('../instrument/InstrumentPage.js')).InstrumentPage),
  study: lazily(async () => (await import('../instrument/StudyPage.js')).StudyPage),
  types: lazily(async () => (await import('../engineType/TypeList.js')).TypeList),
  type: lazily(async () => (await import('../engineType/TypePage.js')).TypePage),
  typeSheet: lazily(async () => (await import('../engineType/TypeSheet.js')).TypeSheet),
  typeMains: lazily(async () => {
    const { CodesEditor } = await codes();
    return () => <CodesEditor family="main" />;
  }),
  typeRods: lazily(async () => {
    const { CodesEditor } = await codes();
    return () => <CodesEditor family="rod" />;
  }),
  typeOrder: lazily(async () => (await import('../order/TypeOrder.js')).TypeOrder),
  known: lazily(async () => (await import('../history/KnownPage.js')).KnownPage),
  knownOffsets: lazily(async () => (await import('../history/OffsetsKnown.js')).OffsetsKnown),
  knownMarks: lazily(async () => (await import('../history/MarksKnown.js')).MarksKnown),
  knownWalls: lazily(async () => (await import('../history/WallsKnown.js')).WallsKnown),
  knownUse: lazily(async () => (await import('../history/UseKnown.js')).UseKnown),
  knownReaders: lazily(async () => (await import('../history/ReadersKnown.js')).ReadersKnown),
  knownTrust: lazily(async () => (await import('../history/TrustKnown.js')).TrustKnown),
  knownEngines: lazily(async () => (await import('../history/EnginesKnown.js')).EnginesKnown),
  compare: lazily(async () => (await import('../engineType/CompareSheets.js')).CompareSheets),
} as const;

/** Fetches what has not been opened yet, so that every page is there when the server is not. */
export async function fetchRest(): Promise<void> {
  await fetchAside();
  // What reads answers and engines: without it nothing of an engine could be sent or shown.
  await Promise.all([import('../wire/allSchemas.js'), import('../saving/documentSchemas.js')]);
  // The face of figures: an engine shows them as soon as it is opened.
  await document.fonts.load('1em "Atkinson Hyperlegible Mono Variable"').catch(() => undefined);
  for (const { fetch } of [...Object.values(STAGE_VIEWS), ...Object.values(VIEWS)]) {
    await whenQuiet();
    await fetch();
  }
}

function page(path: string, { View }: { View: React.ComponentType }, children?: RouteObject[]): RouteObject {
  return { path, element: <View />, ...(children ? { children } : {}) };
}

export const routes = createBrowserRouter([
  {
    element: <Frame />,
    errorElement: <Fault />,
    children: [
      {
        // What fails within the frame leaves the frame as it is.
        errorElement: <Fault />,
        children: [
          // It is what most open first, and comes with the frame.
          page('/', { View: BenchList }),
          page('/new', VIEWS.newEngine),
          page('/drawer', VIEWS.drawer),
          page('/instruments', VIEWS.instruments),
          page('/instruments/:id', VIEWS.instrument),
          page('/instruments/:id/studies/:study', VIEWS.study),
          page('/known', VIEWS.known, [
            { index: true, element: <Navigate to="offsets" replace /> },
            page('offsets', VIEWS.knownOffsets),
            page('marks', VIEWS.knownMarks),
            page('walls', VIEWS.knownWalls),
            page('use', VIEWS.knownUse),
            page('readers', VIEWS.knownReaders),
            page('trust', VIEWS.knownTrust),
            page('engines', VIEWS.knownEngines),
          ]),
          page('/types', VIEWS.types),
          page('/types/:id', VIEWS.type, [
            { index: true, element: <Navigate to="sheet" replace /> },
            page('sheet', VIEWS.typeSheet),
            page('mains', VIEWS.typeMains),
            page('rods', VIEWS.typeRods),
            page('order', VIEWS.typeOrder),
            page('compare', VIEWS.compare),
          ]),
          page('/together', VIEWS.together),
          page('/sum', VIEWS.sum),
          page('/guide', VIEWS.guide),
          page('/guide/:page', VIEWS.guide),
          page('/me', VIEWS.me),
          page('/people', VIEWS.people),
          page('/people/audit', VIEWS.audit),
          page(LET_IN_AT, VIEWS.letIn),
          page('/engines/:id', VIEWS.job, [
            { index: true, element: <Navigate to="choose" replace /> },
            ...STAGES.map((stage) => page(stage, STAGE_VIEWS[stage])),
            page('order', VIEWS.order),
            page('labels', VIEWS.labels),
            page('history', VIEWS.history),
            page('grinding', VIEWS.grinding),
          ]),
          { path: '*', element: <Fault /> },
        ],
      },
    ],
  },
]);
