import type { GaugePort } from './gaugePort.js';

/** A gauge that is not there: sends a figure as one with a data button does, when its button is pressed. */
export interface SimulatedPort extends GaugePort {
  press(figure: string): void;
}

/** @param pattern of the line it sends, with # for the figure */
export function simulatedPort(pattern: () => string): SimulatedPort {
  let send: ((chunk: string) => void) | null = null;
  return {
    name: 'the simulated gauge',
    open: async (onText) => {
      send = onText;
    },
    close: async () => {
      send = null;
    },
    press: (figure) => send?.(`${pattern().replace('#', figure)}\r\n`),
  };
}
