import {
  driftSpans,
  type InstrumentView,
  instrumentKind,
  lengthText,
  momentText,
  nanometres,
  parseLength,
} from '@fettle/core';
import { useState } from 'react';
import { newId } from '../base/newId.js';
import { useBy } from '../person/useBy.js';
import { Button } from '../ui/Button.js';
import { Field } from '../ui/Field.js';
import { Notice } from '../ui/Notice.js';
import { Panel, PanelTitle, Quiet, Row, Table } from '../ui/Panel.js';
import { ShowMore } from '../ui/ShowMore.js';
import { Tick } from '../ui/Tick.js';
import { useKeptText } from '../ui/useKeptText.js';
import { WideTable } from '../ui/WideTable.js';
import { refusalInWords } from '../wire/ask.js';
import { tell } from '../wire/tell.js';
import { shownWords } from './instrumentWords.js';

/** Zero checks shown at first. */
const FIRST = 8;

interface ZeroEntryProps {
  readonly id: string;
  readonly instrument: Pick<InstrumentView['instrument'], 'kind' | 'unit' | 'needle'>;
  readonly onRecorded?: (view: InstrumentView) => void;
}

/** One box for what the instrument shows on its standard: 0 and Enter record that it is right. */
export function ZeroEntry({ id, instrument: { kind, unit, needle }, onRecorded }: ZeroEntryProps) {
  const by = useBy();
  const { text, setText, settled, isLeftOver } = useKeptText({ of: id, part: 'check', field: 'shown' }, '');
  const [isReset, setReset] = useState(true);
  const [fault, setFault] = useState<string | null>(null);
  const [said, setSaid] = useState<string | null>(null);
  const parsed = parseLength(/^[+\-−–]/u.test(text.trim()) || text.trim() === '' ? text : `+${text.trim()}`, {
    unit,
    setting: nanometres(0),
    // Which way the needle of a dial goes is never assumed.
    needle: instrumentKind(kind).hasNeedle ? needle : 'bigger',
  });
  const isZero = /^[+\-−–]?0*[.,]?0*$/u.test(text.trim()) && text.trim() !== '';
  const shown = isZero ? nanometres(0) : parsed.ok ? parsed.nm : null;
  const record = async () => {
    if (text.trim() === '') return;
    if (shown === null) {
      setFault(parsed.ok ? null : parsed.message);
      return;
    }
    setFault(null);
    try {
      const body = { at: new Date().toISOString(), by, standard: null, shown, isReset: isReset && shown !== 0 };
      const view = await tell('putZeroCheck', { id, check: newId(), body });
      settled('');
      setSaid(`Recorded: ${shownWords(shown, unit)}.`);
      onRecorded?.(view);
    } catch (error) {
      setFault(refusalInWords(error));
    }
  };
  return (
    <Row style={{ alignItems: 'start' }}>
      <div style={{ flex: '0 1 16rem' }}>
        <Field
          label={`Reading on its standard, ${unit === 'mm' ? '0.01 mm' : 'thou'}`}
          figure
          value={text}
          onChange={(next) => {
            setText(next);
            setFault(null);
            setSaid(null);
          }}
          isLeftOver={isLeftOver}
          keptBy="saves on Enter"
          onKeyDown={(event) => {
            if (event.key === 'Enter') void record();
          }}
          hint={said ?? (shown === null ? '0 and Enter: it is right' : `${shownWords(shown, unit)}; Enter records it`)}
          fault={fault}
        />
      </div>
      {shown !== null && shown !== 0 && (
        <Tick isSelected={isReset} onChange={setReset}>
          reset to zero
        </Tick>
      )}
      <Button style={{ marginTop: '1.45rem' }} onPress={() => void record()}>
        Record zero check
      </Button>
    </Row>
  );
}

/** The zero checks of an instrument with what it moved by between them. */
export function ZeroChecks({ view, mayChange }: { readonly view: InstrumentView; readonly mayChange: boolean }) {
  const { id, instrument, checks } = view;
  const { unit, drift: allowed } = instrument;
  const [most, setMost] = useState(FIRST);
  const drifts = new Map(driftSpans(checks).map(({ to, drift }) => [to.id, drift]));
  const latest = [...checks].reverse();
  return (
    <Panel aria-label="Zero checks">
      <PanelTitle>Zero checks</PanelTitle>
      {instrument.needle === null && instrument.kind === 'boreGauge' && (
        <Notice>Set its needle direction first.</Notice>
      )}
      {mayChange && <ZeroEntry id={id} instrument={instrument} />}
      {latest.length === 0 ? (
        <Quiet>Not checked yet. Check it on its setting standard before and after work.</Quiet>
      ) : (
        <>
          <WideTable>
            <Table aria-label="Zero checks, the last first">
              <thead>
                <tr>
                  <th>When</th>
                  <th className="number">Showed</th>
                  <th className="number">Drift since the last check</th>
                  <th>By</th>
                </tr>
              </thead>
              <tbody>
                {latest.slice(0, most).map(({ id: check, at, by, shown, isReset }) => {
                  const moved = drifts.get(check);
                  const isFar = moved !== undefined && Math.abs(moved) > allowed;
                  return (
                    <tr key={check}>
                      <td>{momentText(at)}</td>
                      <td className="number">
                        {shownWords(shown, unit)}
                        {isReset && ', set to zero'}
                      </td>
                      <td className="number">
                        {moved === undefined ? '' : moved === 0 ? '0' : lengthText(nanometres(moved), unit)}
                        {isFar && <strong> more than allowed</strong>}
                      </td>
                      <td>{by}</td>
                    </tr>
                  );
                })}
              </tbody>
            </Table>
          </WideTable>
          <ShowMore
            shown={Math.min(most, latest.length)}
            all={latest.length}
            what="checks"
            onMore={() => setMost(most + 40)}
          />
          <Quiet>
            Readings between two checks that differ by more than {lengthText(allowed, unit)} are asked about in their
            engines.
          </Quiet>
        </>
      )}
    </Panel>
  );
}
