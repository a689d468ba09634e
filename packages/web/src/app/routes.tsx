import { createBrowserRouter, Navigate } from 'react-router';
import { BenchList } from '../bench/BenchList.js';
import { NewEngine } from '../bench/NewEngine.js';
import { ChooseView } from '../choose/ChooseView.js';
import { CodesView } from '../codes/CodesView.js';
import { DataSheet } from '../data/DataSheet.js';
import { DrawerView } from '../drawer/DrawerView.js';
import { CodesEditor } from '../engineType/CodesEditor.js';
import { CompareSheets } from '../engineType/CompareSheets.js';
import { TypeList } from '../engineType/TypeList.js';
import { TypePage } from '../engineType/TypePage.js';
import { TypeSheet } from '../engineType/TypeSheet.js';
import { JobPage } from '../job/JobPage.js';
import { MeasureView } from '../measure/MeasureView.js';
import { JobOrder } from '../order/JobOrder.js';
import { TypeOrder } from '../order/TypeOrder.js';
import { SheetView } from '../sheet/SheetView.js';
import { TogetherView } from '../workshop/TogetherView.js';
import { WorkshopView } from '../workshop/WorkshopView.js';
import { Fault } from './Fault.js';
import { Frame } from './Frame.js';

export const routes = createBrowserRouter([
  {
    element: <Frame />,
    errorElement: <Fault />,
    children: [
      { path: '/', element: <BenchList /> },
      { path: '/new', element: <NewEngine /> },
      { path: '/drawer', element: <WorkshopView /> },
      { path: '/types', element: <TypeList /> },
      {
        path: '/types/:id',
        element: <TypePage />,
        children: [
          { index: true, element: <Navigate to="sheet" replace /> },
          { path: 'sheet', element: <TypeSheet /> },
          { path: 'mains', element: <CodesEditor key="main" family="main" /> },
          { path: 'rods', element: <CodesEditor key="rod" family="rod" /> },
          { path: 'order', element: <TypeOrder /> },
          { path: 'compare', element: <CompareSheets /> },
        ],
      },
      { path: '/together', element: <TogetherView /> },
      {
        path: '/engines/:id',
        element: <JobPage />,
        children: [
          { index: true, element: <Navigate to="choose" replace /> },
          { path: 'data', element: <DataSheet /> },
          { path: 'codes', element: <CodesView /> },
          { path: 'bores', element: <MeasureView key="bores" feature="mainBore" /> },
          { path: 'journals', element: <MeasureView key="journals" feature="mainJournal" /> },
          { path: 'bigEnds', element: <MeasureView key="bigEnds" feature="bigEnd" /> },
          { path: 'pins', element: <MeasureView key="pins" feature="pin" /> },
          { path: 'drawer', element: <DrawerView /> },
          { path: 'order', element: <JobOrder /> },
          { path: 'choose', element: <ChooseView /> },
          { path: 'sheet', element: <SheetView /> },
        ],
      },
      { path: '*', element: <Fault /> },
    ],
  },
]);
