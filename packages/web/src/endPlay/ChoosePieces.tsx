import {
  type FreePieces,
  isLugged,
  type JobDocument,
  lengthOfNumber,
  lengthText,
  type PieceAsk,
  type PieceChoice,
  type ShimConflict,
  type Unit,
  workedOutText,
} from '@fettle/core';
import { Check } from 'lucide-react';
import styled from 'styled-components';
import { useClearances } from '../person/useClearances.js';
import { Button } from '../ui/Button.js';
import { Notice } from '../ui/Notice.js';
import { Panel, PanelTitle, Quiet, Row, Table } from '../ui/Panel.js';
import { type Chosen, PieceRows, placesOf } from './PieceRows.js';
import { brokenWords, placeName } from './pieceWords.js';
import type { Shims } from './useShims.js';

const Outcome = styled.p`
  font-size: var(--size-lead);
  font-weight: 700;
  margin-top: 0.5rem;
`;

const Others = styled.div`
  max-height: 16rem;
  overflow: auto;
  margin-top: 0.25rem;
  tr[aria-current='true'] td { background: var(--accent-soft); }
  td.number { font-weight: 600; }
  td small { display: block; color: var(--ink-soft); }
`;

export interface PieceWork {
  readonly document: JobDocument;
  readonly asked: PieceAsk;
  readonly pieces: FreePieces;
  readonly shims: Shims;
  readonly inHand: Chosen | null;
  readonly outcome: {
    readonly result: number;
    readonly shift: number;
    readonly broken: Parameters<typeof brokenWords>[0];
  } | null;
  readonly isOwn: boolean;
  readonly take: (chosen: Chosen | null) => void;
  readonly accept: () => void;
  readonly withdraw: () => void;
}

function shiftText(shift: number, length: (value: number) => string): string {
  return `moves the shaft ${length(Math.abs(shift))} ${shift > 0 ? 'forward' : 'back'}`;
}

interface ConflictProps {
  readonly conflict: ShimConflict;
  readonly unit: Unit;
  /** True if a piece of the request carries a coating: then it is never dressed. */
  readonly isCoated: (id: string) => boolean;
  /** True if any of them does. */
  readonly hasCoated: boolean;
}

function Conflict({ conflict, unit, isCoated, hasCoated }: ConflictProps) {
  const { said } = useClearances(unit);
  const figure = (value: number) => `${Number(value.toFixed(unit === 'mm' ? 4 : 5))} ${unit}`;
  const ways = [
    ...conflict.remedies.flatMap((remedy) => {
      if (remedy.kind === 'piece') {
        return [`one of ${figure(remedy.from)} to ${figure(remedy.to)} at ${placeName(remedy.place).toLowerCase()}`];
      }
      if (remedy.kind === 'dress' && !isCoated(remedy.id)) return [`${figure(remedy.by)} dressed off ${remedy.id}`];
      return [];
    }),
    ...(conflict.faces ?? [])
      .filter(({ by }) => by === undefined || !hasCoated)
      .map(({ face, from, to, by }) =>
        by === undefined
          ? `a pair of ${figure(from!)} to ${figure(to!)} on the ${face === 'flanges' ? 'thrust main' : `${face} face`}`
          : `${figure(by)} dressed off both pieces of the ${face === 'flanges' ? 'thrust main' : `${face} face`}`,
      ),
  ];
  return (
    <Notice>
      {said(conflict.message)}
      {ways.length > 0 && ` Options: ${said(ways.join('; '))}.`}
    </Notice>
  );
}

/** What was accepted, as it was then. */
interface AcceptedProps {
  readonly choice: PieceChoice;
  readonly document: JobDocument;
  readonly onWithdraw: () => void;
  readonly onPutIn: (() => void) | undefined;
}

function Accepted({ choice, document, onWithdraw, onPutIn }: AcceptedProps) {
  const { shown } = useClearances(document.unit);
  return (
    <>
      <Table aria-label="Accepted washers and shims">
        <thead>
          <tr>
            <th>Position</th>
            <th>Washer or shim</th>
            <th className="number">Thickness</th>
            <th className="number">Count</th>
          </tr>
        </thead>
        <tbody>
          {choice.chosen.map(({ place, piece, label, thickness, count }) => (
            <tr key={`${place} ${piece} ${thickness}`}>
              <td>
                {placeName(place)}
                {isLugged(document.assembly.built, place) && ', with lug'}
              </td>
              <td>{label}</td>
              <td className="number">{lengthText(thickness, shown)}</td>
              <td className="number">{count}</td>
            </tr>
          ))}
        </tbody>
      </Table>
      <Outcome>
        Gives <span className="figure">{lengthText(choice.predicted, shown)}</span>
      </Outcome>
      <Row style={{ justifyContent: 'space-between' }}>
        <Quiet>Accepted by {choice.by}. Put them in, then read again.</Quiet>
        <Row>
          {onPutIn && <Button onPress={onPutIn}>Fitted</Button>}
          <Button onPress={onWithdraw}>Select again</Button>
        </Row>
      </Row>
    </>
  );
}

interface ChoosePiecesProps {
  readonly work: PieceWork;
  readonly choice: PieceChoice | null;
  readonly title: string;
  /** What is to be done before there is anything to choose. */
  readonly missing: string | null;
  /** A caution, once, where it belongs. */
  readonly caution?: string;
  /** Tells that the accepted pieces are in now; left out where reading again tells it. */
  readonly onPutIn?: (() => void) | undefined;
}

/** The pieces in hand, each to be swapped; what they lead to; what else is on the shelf, ranked; and what was accepted. */
export function ChoosePieces({ work, choice, title, missing, caution, onPutIn }: ChoosePiecesProps) {
  const { document, asked, shims, inHand, outcome, isOwn, take, accept, withdraw } = work;
  const { unit } = document;
  const { shown } = useClearances(document.unit);
  const length = (value: number) => lengthText(lengthOfNumber(value, unit), shown);
  const said = (chosen: Chosen) =>
    placesOf(chosen)
      .map(({ id }) => id)
      .reduce<{ id: string; count: number }[]>((sum, id) => {
        const same = sum.find((one) => one.id === id);
        if (same) same.count += 1;
        else sum.push({ id, count: 1 });
        return sum;
      }, [])
      .map(({ id, count }) => (count > 1 ? `${count} × ${id}` : id))
      .join(', ');
  const isCoated = (id: string) => asked.ok && work.pieces[asked.ids.get(id) ?? '']?.coating !== undefined;
  const isCurrent = (chosen: Chosen) => inHand !== null && said(chosen) === said(inHand);
  return (
    <Panel aria-label={title}>
      <PanelTitle>{title}</PanelTitle>
      {caution && <Quiet>{caution}</Quiet>}
      {choice ? (
        <Accepted choice={choice} document={document} onWithdraw={withdraw} onPutIn={onPutIn} />
      ) : !asked.ok ? (
        <Quiet>{missing}</Quiet>
      ) : (
        <>
          {shims.fault && <Notice urgent>{shims.fault}</Notice>}
          {shims.plan?.conflicts.map((conflict) => (
            <Conflict
              key={conflict.kind}
              conflict={conflict}
              unit={unit}
              isCoated={isCoated}
              hasCoated={asked.request.pieces.some(({ id }) => isCoated(id))}
            />
          ))}
          {inHand && outcome && (
            <>
              <PieceRows asked={asked} chosen={inHand} unit={unit} onChange={take} />
              <Outcome aria-live="polite">
                Gives <span className="figure">{length(outcome.result)}</span>
              </Outcome>
              {outcome.shift !== 0 && <Quiet>It {shiftText(outcome.shift, length)}.</Quiet>}
              {outcome.broken.length > 0 && <Notice>{brokenWords(outcome.broken)}</Notice>}
              <Row style={{ marginTop: '0.5rem' }}>
                <Button $kind="primary" isDisabled={outcome.broken.includes('stock')} onPress={accept}>
                  <Check aria-hidden size={20} />
                  {outcome.broken.length > 0 ? 'Accept anyway' : 'Accept these'}
                </Button>
                {isOwn && <Button onPress={() => take(null)}>Back to best</Button>}
              </Row>
            </>
          )}
          {shims.choices.length > 0 && (
            <>
              <h3 style={{ marginTop: '0.9rem' }}>Other washers and shims in stock</h3>
              <Others>
                <Table aria-label="Other washers and shims in stock">
                  <thead>
                    <tr>
                      <th className="number">Gives, {shown}</th>
                      <th>Washers and shims</th>
                      <th>
                        <span className="visually-hidden">Use</span>
                      </th>
                    </tr>
                  </thead>
                  <tbody>
                    {shims.choices.map(({ chosen, result, shift }) => (
                      <tr key={said(chosen)} {...(isCurrent(chosen) ? { 'aria-current': 'true' as const } : {})}>
                        <td className="number">{workedOutText(lengthOfNumber(result, unit), shown)}</td>
                        <td>
                          {said(chosen)}
                          {shift !== 0 && <small> {shiftText(shift, length)}</small>}
                        </td>
                        <td>
                          <Button
                            $kind="quiet"
                            aria-label={`Use ${said(chosen)}, which gives ${length(result)}`}
                            onPress={() => take(chosen)}
                          >
                            Use
                          </Button>
                        </td>
                      </tr>
                    ))}
                  </tbody>
                </Table>
              </Others>
            </>
          )}
        </>
      )}
    </Panel>
  );
}
