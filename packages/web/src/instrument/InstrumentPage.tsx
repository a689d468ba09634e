import { dueAfter, INSTRUMENT_STATE_WORDS, instrumentName, lastCalibration } from '@fettle/core';
import { Link, useLocation, useNavigate, useParams } from 'react-router';
import { useTitle } from '../base/useTitle.js';
import { Notice } from '../ui/Notice.js';
import { PanelTitle, Row } from '../ui/Panel.js';
import { TwoColumns } from '../ui/TwoColumns.js';
import { api } from '../wire/api.js';
import { isAskFault, refusalInWords } from '../wire/ask.js';
import { Calibrations } from './Calibrations.js';
import { InstrumentForm } from './InstrumentForm.js';
import { CalibrationMark } from './instrumentColumns.js';
import { capital } from './instrumentWords.js';
import { StudiesPanel } from './StudiesPanel.js';
import { TouchedEngines } from './TouchedEngines.js';
import { useMayRegister } from './useMayRegister.js';
import { ZeroChecks } from './ZeroChecks.js';

/** One instrument: its zero checks and calibrations, what it is, and the engines that were read with it. */
export function InstrumentPage() {
  const { id = '' } = useParams();
  const location = useLocation();
  const navigate = useNavigate();
  const mayChange = useMayRegister();
  const isNew = (location.state as { isNew?: boolean } | null)?.isNew === true;
  const { currentData: view = null, error } = api.useGetInstrumentQuery({ id }, { refetchOnMountOrArgChange: true });
  const name = view ? instrumentName(view.instrument) : isNew ? 'New instrument' : 'Instrument';
  useTitle(name, 'Instruments');
  const isMissing = isAskFault(error) && error.kind === 'refused' && error.problem.status === 404;
  const last = view && lastCalibration(view.calibrations);
  return (
    <>
      <Row style={{ justifyContent: 'space-between' }}>
        <PanelTitle as="h1">{capital(name)}</PanelTitle>
        {view && (
          <Row>
            {view.instrument.state !== 'inUse' && <strong>{INSTRUMENT_STATE_WORDS[view.instrument.state]}</strong>}
            <CalibrationMark
              of={{
                calibratedOn: last?.on ?? null,
                due: last && dueAfter(last, view.instrument.calibrateAfterMonths),
                isWrong: last !== null && last.wrong !== null,
              }}
            />
          </Row>
        )}
        <Link to="/instruments">All instruments</Link>
      </Row>
      {error && !(isMissing && isNew) && <Notice urgent>{refusalInWords(error)}</Notice>}
      {view === null && isNew && isMissing && (
        <InstrumentForm
          key={id}
          id={id}
          view={null}
          mayChange={mayChange}
          onSaved={() => void navigate(`/instruments/${id}`, { replace: true })}
        />
      )}
      {view && (
        <TwoColumns>
          <div>
            <ZeroChecks view={view} mayChange={mayChange} />
            <Calibrations view={view} mayChange={mayChange} />
            <StudiesPanel view={view} mayChange={mayChange} />
            <TouchedEngines id={id} />
          </div>
          <div>
            <InstrumentForm key={id} id={id} view={view} mayChange={mayChange} onSaved={() => {}} />
          </div>
        </TwoColumns>
      )}
    </>
  );
}
