import { assembledEngine } from './assembledEngine.js';
import { burr2 } from './demoBurr2.js';
import { reed6 } from './demoReed6.js';
import { reed6Line } from './demoReed6Line.js';
import { rushTwin } from './demoRushTwin.js';
import { samphire8 } from './demoSamphire8.js';
import { markedSedge4, sedge4 } from './demoSedge4.js';
import { demoTypes, SEDGE_TYPE } from './demoTypes.js';
import { type DemoEngine, STARTED } from './demoWriting.js';
import { triedEngine } from './triedEngine.js';

/** The engines that a new installation shows: invented, of the invented Saltmarsh works. */
export function demoEngines(): DemoEngine[] {
  return [
    rushTwin(301, ['64.010', '64.012', '64.009'], ['59.985', '59.984', '59.986']),
    rushTwin(302, ['64.011', '64.008', '64.010'], ['59.984', '59.987', '59.985']),
    rushTwin(303, ['64.013', '64.011', '64.006'], ['59.982', '59.986', '59.988']),
    triedEngine(sedge4()),
    assembledEngine(triedEngine(sedge4()), demoTypes().find(({ id }) => id === SEDGE_TYPE)!.type),
    sedge4(),
    samphire8(),
    reed6(),
    reed6Line(),
    burr2(),
    markedSedge4(),
  ].map(asked);
}

/** The engine after its fitter has said which way the needle goes, and that the caps were on where the bores were read. */
function asked(engine: DemoEngine): DemoEngine {
  const { document, readings, by } = engine;
  const { boreGauge } = document.instruments;
  const said = readings.some(({ feature }) => feature === 'mainBore') ? { mainBore: { by, at: STARTED } } : {};
  return {
    ...engine,
    document: {
      ...document,
      instruments: { ...document.instruments, boreGauge: { ...boreGauge, needle: 'bigger' } },
      measuring: { ...document.measuring, capsOn: said },
    },
  };
}
