import { formatLength, type InstrumentView, nanometres } from '@fettle/core';
import { useState } from 'react';
import { useBy } from '../person/useBy.js';
import { Button } from '../ui/Button.js';
import { Row } from '../ui/Panel.js';
import { api } from '../wire/api.js';
import { refusalInWords } from '../wire/ask.js';
import { tell } from '../wire/tell.js';

/** So few pairs say too little to be taken over. */
const FEWEST = 10;

/** How readings that were taken again in engines repeat; nothing while none were. */
export function RepeatsFound({ view, mayChange }: { readonly view: InstrumentView; readonly mayChange: boolean }) {
  const by = useBy();
  const { id, revision, instrument } = view;
  const { data } = api.useInstrumentRepeatsQuery({ id }, { refetchOnMountOrArgChange: true });
  const [fault, setFault] = useState<string | null>(null);
  const repeats = data?.repeats ?? null;
  if (repeats === null) return null;
  const { unit } = instrument;
  const text = (value: number) => formatLength(nanometres(Math.round(value)), unit, unit === 'mm' ? 4 : 5);
  const { pairs, slips, sd, low, high } = repeats;
  const repeatability = nanometres(Math.round(sd));
  const take = async () => {
    setFault(null);
    const basis = `${pairs} repeat readings in engines`;
    try {
      await tell('putInstrument', { id, body: { revision, by, instrument: { ...instrument, repeatability, basis } } });
    } catch (error) {
      setFault(refusalInWords(error));
    }
  };
  return (
    <Row>
      <span>
        {pairs === 1 ? 'One repeat reading' : `${pairs} repeat readings`} in engines: repeatability{' '}
        <strong className="figure">{text(sd)}</strong> {unit} (95 %:{' '}
        <span className="figure">
          {text(low)}–{text(high)}
        </span>
        ){slips > 0 && `; ${slips} slips left out`}.
      </span>
      {mayChange && pairs >= FEWEST && repeatability !== instrument.repeatability && (
        <Button onPress={() => void take()}>Use as repeatability</Button>
      )}
      {fault && <strong>{fault}</strong>}
    </Row>
  );
}
