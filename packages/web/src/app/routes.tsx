import { FEATURE_TABLE, FEATURES } from '@fettle/core';
import { createBrowserRouter, Navigate, type RouteObject } from 'react-router';
import { LET_IN_AT } from '../access/letInAt.js';
import { Fault } from './Fault.js';
import { Frame, fetchAside } from './Frame.js';
import { lazily } from './lazily.js';
import { whenQuiet } from './whenQuiet.js';

const measuring = () => import('../measure/MeasureView.js');
const codes = () => import('../engineType/CodesEditor.js');

/** One page a feature that is measured. */
const MEASURING = FEATURES.map((feature) => ({
  path: FEATURE_TABLE[feature].stage,
  view: lazily(async () => {
    const { MeasureView } = await measuring();
    return () => <MeasureView feature={feature} />;
  }),
}));

/** The other views, those of an engine first: they are what is opened next. */
const VIEWS = {
  bench: lazily(async () => (await import('../bench/BenchList.js')).BenchList),
  job: lazily(async () => (await import('../job/JobPage.js')).JobPage),
  limits: lazily(async () => (await import('../limits/DataSheet.js')).DataSheet),
  codes: lazily(async () => (await import('../codes/CodesView.js')).CodesView),
  halves: lazily(async () => (await import('../halves/DrawerView.js')).DrawerView),
  choose: lazily(async () => (await import('../choose/ChooseView.js')).ChooseView),
  trial: lazily(async () => (await import('../trial/TrialView.js')).TrialView),
  runout: lazily(async () => (await import('../runout/RunoutView.js')).RunoutView),
  crush: lazily(async () => (await import('../crush/CrushView.js')).CrushView),
  endPlay: lazily(async () => (await import('../endPlay/EndPlayView.js')).EndPlayView),
  torque: lazily(async () => (await import('../torque/TorqueView.js')).TorqueView),
  assembly: lazily(async () => (await import('../assembly/AssemblyView.js')).AssemblyView),
  labels: lazily(async () => (await import('../assembly/LabelsView.js')).LabelsView),
  sheet: lazily(async () => (await import('../sheet/SheetView.js')).SheetView),
  history: lazily(async () => (await import('../history/HistoryView.js')).HistoryView),
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
  compare: lazily(async () => (await import('../engineType/CompareSheets.js')).CompareSheets),
} as const;

/** Fetches what has not been opened yet, so that every page is there when the server is not. */
export async function fetchRest(): Promise<void> {
  await fetchAside();
  for (const { fetch } of [...MEASURING.map(({ view }) => view), ...Object.values(VIEWS)]) {
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
          page('/', VIEWS.bench),
          page('/new', VIEWS.newEngine),
          page('/drawer', VIEWS.drawer),
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
            page('data', VIEWS.limits),
            page('codes', VIEWS.codes),
            ...MEASURING.map(({ path, view }) => page(path, view)),
            page('drawer', VIEWS.halves),
            page('order', VIEWS.order),
            page('choose', VIEWS.choose),
            page('trial', VIEWS.trial),
            page('runout', VIEWS.runout),
            page('assembly', VIEWS.assembly),
            page('torque', VIEWS.torque),
            page('labels', VIEWS.labels),
            page('crush', VIEWS.crush),
            page('endPlay', VIEWS.endPlay),
            page('sheet', VIEWS.sheet),
            page('history', VIEWS.history),
          ]),
          { path: '*', element: <Fault /> },
        ],
      },
    ],
  },
]);
