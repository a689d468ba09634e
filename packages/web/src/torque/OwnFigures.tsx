import { FAMILY_TABLE, FASTENER_PLACES, type Family, PLACE_TABLE, type Torque } from '@fettle/core';
import { useState } from 'react';
import { useDraft } from '../typing/useDraft.js';
import { Button } from '../ui/Button.js';
import { Fold } from '../ui/Fold.js';
import { Quiet, Row } from '../ui/Panel.js';
import { TorqueLines } from './TorqueLines.js';
import { isBlankTorque, readTorqueLine, type TorqueLineText, textOfTorque } from './torqueLineText.js';
import type { TorqueWork } from './useTorque.js';

interface OwnFiguresProps {
  readonly job: string;
  readonly family: Family;
  readonly work: TorqueWork;
  /** True if it is asked for: other fasteners hold, or the sheet gives nothing. */
  readonly isWanted: boolean;
}

/** Figures of the fasteners' own maker, with their source; kept as they are typed until they are ready. */
export function OwnFigures({ job, family, work, isWanted }: OwnFiguresProps) {
  const { document, setFigures } = work;
  const { unit } = document;
  const stored = document.fasteners[family].figures.map((one) => textOfTorque(one, unit));
  const [draft, setDraft, clear] = useDraft<readonly TorqueLineText[]>(`${job}.figures.${family}`);
  const [isTried, setTried] = useState(false);
  const lines = draft ?? stored;
  const read = lines.map((line) => (isBlankTorque(line) ? null : readTorqueLine(line, unit)));
  const torques = read.flatMap((one): Torque[] => (one?.torque ? [one.torque] : []));
  const isReady = read.every((one) => one === null || one.torque !== null);
  const keep = () => {
    setTried(true);
    if (!isReady) return;
    clear();
    setTried(false);
    setFigures(family, torques);
  };
  return (
    <Fold open={isWanted || draft !== null}>
      <summary>{FAMILY_TABLE[family].caps}: figures of other fasteners, or where the sheet has none</summary>
      <TorqueLines
        lines={lines}
        faults={read.map((one) => (isTried ? (one?.faults ?? {}) : {}))}
        unit={unit}
        places={FASTENER_PLACES.filter((place) => PLACE_TABLE[place].family === family)}
        onChange={setDraft}
      />
      {draft !== null && (
        <Row style={{ marginTop: '0.5rem' }}>
          <Button $kind="primary" onPress={keep}>
            Save figures
          </Button>
          <Button onPress={() => clear()}>Discard changes</Button>
          {isTried && !isReady && <Quiet role="alert">Complete the fields above.</Quiet>}
        </Row>
      )}
    </Fold>
  );
}
