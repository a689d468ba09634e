import { type GaugeLine, GaugeLines, gaugeLineSchema, gaugeText, PLAIN_LINE } from '@fettle/core';
import { useEffect, useRef, useState } from 'react';
import { localNote, setLocalNote } from '../../base/localNotes.js';
import { chosenPort, type GaugePort, hasSerial } from './gaugePort.js';
import { type SimulatedPort, simulatedPort } from './simulatedPort.js';
import { typeFigure } from './typeFigure.js';

const KEY = 'fettle.gaugeLine';

/** The line format of this device's gauge; the plain one where none was set, or what was kept is none. */
function keptLine(): GaugeLine {
  const kept = localNote(KEY);
  if (kept === null) return PLAIN_LINE;
  try {
    return gaugeLineSchema.catch(PLAIN_LINE).parse(JSON.parse(kept));
  } catch {
    return PLAIN_LINE;
  }
}

export interface Gauge {
  readonly line: GaugeLine;
  readonly setLine: (part: Partial<GaugeLine>) => void;
  readonly hasSerial: boolean;
  /** What is listened to; null while nothing is. */
  readonly name: string | null;
  readonly connect: () => void;
  readonly simulate: () => void;
  readonly letGo: () => void;
  /** Presses the button of the simulated gauge; null while another is listened to, or none. */
  readonly press: ((figure: string) => void) | null;
  /** What came last, or what is wrong with it. */
  readonly heard: { readonly text: string; readonly isFault: boolean } | null;
}

/** Listens to a gauge with a data cable: what it sends is typed into the box in hand, and Enter goes on. */
export function useGauge(): Gauge {
  const [line, show] = useState(keptLine);
  const latest = useRef(line);
  latest.current = line;
  const [port, setPort] = useState<GaugePort | SimulatedPort | null>(null);
  const [heard, setHeard] = useState<Gauge['heard']>(null);
  const fault = (text: string) => setHeard({ text, isFault: true });
  // The cable is let go when the page is left.
  useEffect(() => () => void port?.close(), [port]);

  const take = (sent: string) => {
    const read = gaugeText(sent, latest.current);
    if (!read.ok) return fault(read.message);
    if (!typeFigure(read.text))
      return fault(`The gauge sent ${read.text}, but no field is selected: select one first.`);
    setHeard({ text: read.text, isFault: false });
  };
  const listen = async (next: GaugePort) => {
    const lines = new GaugeLines();
    await next.open(
      (chunk) => {
        for (const one of lines.take(chunk)) take(one);
      },
      (why) => {
        setPort((now) => (now === next ? null : now));
        if (why !== null) fault(`The gauge is gone: ${why}`);
      },
    );
    setHeard(null);
    setPort(next);
  };
  const failed = (error: Error) => fault(`The gauge could not be opened: ${error.message}`);
  return {
    line,
    setLine: (part) => {
      const next = { ...line, ...part };
      show(next);
      setLocalNote(KEY, JSON.stringify(next));
    },
    hasSerial: hasSerial(),
    name: port?.name ?? null,
    connect: () => {
      chosenPort(line.baud)
        .then((chosen) => chosen && listen(chosen))
        .catch(failed);
    },
    simulate: () => {
      listen(simulatedPort(() => latest.current.pattern)).catch(failed);
    },
    letGo: () => setPort(null),
    press: port && 'press' in port ? port.press : null,
    heard,
  };
}
