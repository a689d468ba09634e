import { jobAssembly, jobFacts, plainNumber } from '@fettle/core';
import { Printer } from 'lucide-react';
import { useMemo } from 'react';
import styled from 'styled-components';
import { useOpenJob } from '../job/JobPage.js';
import { useDraft } from '../typing/useDraft.js';
import { Button } from '../ui/Button.js';
import { Choice } from '../ui/Choice.js';
import { Field } from '../ui/Field.js';
import { Notice } from '../ui/Notice.js';
import { Quiet, Row } from '../ui/Panel.js';
import { useQr } from '../ui/useQr.js';

const Sheet = styled.div<{ $wide: number; $high: number; $gap: number }>`
  display: flex;
  flex-wrap: wrap;
  align-content: flex-start;
  gap: ${({ $gap }) => $gap}mm;
  margin-top: 0.75rem;
  > div {
    width: ${({ $wide }) => $wide}mm;
    height: ${({ $high }) => $high}mm;
    max-width: 100%;
    border: 1px dashed var(--line-strong);
    padding: 1.5mm 2mm;
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 0 2mm;
    overflow: hidden;
    background: #fff;
    color: #000;
    break-inside: avoid;
    align-items: start;
  }
  strong { font-size: ${({ $high }) => Math.min(9, $high * 0.26)}mm; line-height: 1; }
  p { font-size: ${({ $high }) => Math.max(2.2, Math.min(3.4, $high * 0.1))}mm; line-height: 1.2; overflow-wrap: anywhere; }
  img { width: ${({ $high }) => $high * 0.55}mm; height: ${({ $high }) => $high * 0.55}mm; image-rendering: pixelated; }
  @media print { > div { border-color: transparent; } @page { margin: 8mm; } }
`;

const SIZES = {
  '70x37': { wide: 70, high: 37, label: '70 × 37 mm' },
  '63x38': { wide: 63.5, high: 38.1, label: '63.5 × 38.1 mm' },
  '99x34': { wide: 99.1, high: 33.9, label: '99.1 × 33.9 mm' },
  own: { wide: 0, high: 0, label: 'own size' },
} as const;
type Size = keyof typeof SIZES;

/** What is printed on, millimetres as typed. */
interface Paper {
  readonly size: Size;
  readonly wide: string;
  readonly high: string;
  readonly gap: string;
}
const USUAL: Paper = { size: '70x37', wide: '70', high: '37', gap: '0' };

function mmOf(text: string, least: number, most: number): number | null {
  const value = plainNumber(text);
  return value >= least && value <= most ? value : null;
}

/** Names of this very machine: an address with one of them leads nowhere from another. */
const LOOPBACK = /^(?:localhost|.*\.localhost|127(?:\.\d+){3}|\[?::1\]?)$/u;

/** True if an address can be reached from this machine only. */
export function isThisMachineOnly(hostname: string): boolean {
  return LOOPBACK.test(hostname);
}

/** Labels for parts and stations: place, halves, mark, and a code that leads to the engine's page; on sheets of any size. */
export function LabelsView() {
  const { id, document, readings } = useOpenJob();
  // The labels in the printer are the same from engine to engine.
  const [paper, setPaper] = useDraft<Paper>('labels');
  const { size, wide, high, gap } = paper !== null && paper.size in SIZES ? paper : USUAL;
  const set = (part: Partial<Paper>) => setPaper((now) => ({ ...(now ?? USUAL), ...part }));
  const facts = useMemo(() => jobFacts(document, readings), [document, readings]);
  const stations = useMemo(() => jobAssembly(document, facts.stations), [document, facts]);
  const isHereOnly = isThisMachineOnly(window.location.hostname);
  const qr = useQr(`${window.location.origin}/engines/${id}`);
  const own = { wide: mmOf(wide, 20, 200), high: mmOf(high, 10, 200), gap: mmOf(gap, 0, 20) };
  const shown = size === 'own' ? own : { ...SIZES[size], gap: own.gap };
  return (
    <>
      <div className="no-print">
        <Row style={{ alignItems: 'end' }}>
          <Choice
            label="Labels of"
            value={size}
            options={(Object.keys(SIZES) as Size[]).map((value) => ({ value, label: SIZES[value].label }))}
            onChange={(next) => set({ size: next })}
          />
          {size === 'own' && (
            <>
              <Field
                label="Width, mm"
                figure
                value={wide}
                onChange={(next) => set({ wide: next })}
                fault={own.wide === null ? '20 to 200.' : null}
              />
              <Field
                label="Height, mm"
                figure
                value={high}
                onChange={(next) => set({ high: next })}
                fault={own.high === null ? '10 to 200.' : null}
              />
            </>
          )}
          <Field
            label="Between them, mm"
            figure
            value={gap}
            onChange={(next) => set({ gap: next })}
            fault={own.gap === null ? '0 to 20.' : null}
          />
          <Button $kind="primary" onPress={() => print()}>
            <Printer aria-hidden size={20} />
            Print the labels
          </Button>
        </Row>
        <Quiet>One for each station and its parts. Print at full size; the code opens this engine’s page.</Quiet>
        {isHereOnly && (
          <Notice>
            This page was opened under {window.location.hostname}: the codes work on this machine only. For codes that
            work on other devices, start the server for the network and open the page under its address.
          </Notice>
        )}
      </div>
      {shown.wide !== null && shown.high !== null && shown.gap !== null && (
        <Sheet $wide={shown.wide} $high={shown.high} $gap={shown.gap} aria-label="Labels" role="group">
          {stations.map(({ station, rod }) => {
            const chosen = document.choice?.stations[station];
            const known = facts.stations.find((one) => one.id === station);
            const marks = [known?.marks.bore, known?.marks.journal].filter((mark) => mark != null);
            return (
              <div key={station}>
                <div>
                  <strong>
                    {station}
                    {rod !== null && ` · R${rod}`}
                  </strong>
                  <p>{document.name}</p>
                  <p>{chosen ? `${chosen.upper.label} over ${chosen.lower.label}` : 'no shells selected'}</p>
                  {marks.length > 0 && <p>marks {marks.join(', ')}</p>}
                  {isHereOnly && <p>code: this machine only</p>}
                </div>
                {qr !== null && <img src={qr} alt="" />}
              </div>
            );
          })}
        </Sheet>
      )}
    </>
  );
}
