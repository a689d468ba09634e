import { startedWith, trustRatio } from '@fettle/core';
import { Link } from 'react-router';
import { Button } from '../ui/Button.js';
import { Quiet, Row } from '../ui/Panel.js';
import { api } from '../wire/api.js';
import type { TrialWork } from './useTrial.js';

/** Whether earlier engines of the type bear the starting uncertainties out; where they do not, others are offered. */
export function TrustLine({ work }: { readonly work: TrialWork }) {
  const { document, setInstruments } = work;
  const type = document.sheet?.name ?? '';
  const { data } = api.useKnownTrustQuery({ type });
  const trust = data ? trustRatio(data) : null;
  if (!data || !trust) return null;
  const { ratio, low, high, factor } = trust;
  const next = factor === 1 ? null : startedWith(document.instruments, document.unit, factor);
  const found = `${data.checks} trials of ${data.engines} engines${type === '' ? '' : ` of the type ${type}`} came ${ratio.toFixed(2)} times as far off as stated (${low.toFixed(2)} to ${high.toFixed(2)})`;
  return (
    <>
      <Quiet>
        {found}: {factor === 1 ? 'the ± are as good as they say.' : `the ± were too ${factor > 1 ? 'narrow' : 'wide'}.`}{' '}
        <Link to="/known/trust">Are the ± honest</Link>
      </Quiet>
      {next && (
        <Row>
          <Button onPress={() => setInstruments(next)}>Start with {factor} times the usual figures</Button>
        </Row>
      )}
    </>
  );
}
