import {
  formatExactLength,
  INSTRUMENT_DECIMALS,
  instrumentFor,
  nanometres,
  parseLength,
  trialLength,
} from '@fettle/core';
import { useState } from 'react';
import { bothUnits } from '../typing/LengthField.js';
import { useKeptText } from '../ui/useKeptText.js';
import type { TrialWork } from './useTrial.js';

const MODE_HINTS = {
  journal: 'What the needle shows is the clearance.',
  setting: 'The bore of the shells, or + and − from the setting size.',
  bore: 'Micrometer reading that brings the needle back to zero.',
} as const;

/** A reading with the shells in while it is typed: the size that the gauge was zeroed on, and the figure. */
export function useTrialEntry(job: string, { document, open, mode, lastSetting, add }: TrialWork) {
  const { unit } = document;
  const written = (nm: NonNullable<typeof lastSetting>) => formatExactLength(nm, unit, INSTRUMENT_DECIMALS[unit]);
  const typed = useKeptText({ of: job, part: `trial ${open.station.id}`, field: 'reading' }, '');
  const zero = useKeptText(
    { of: job, part: 'trial', field: 'setting' },
    lastSetting === null ? '' : written(lastSetting),
  );
  const [isTried, setTried] = useState(false);
  const readZero = parseLength(zero.text, { unit, signed: 'sign' });
  const setting = readZero.ok && readZero.nm > 0 ? readZero.nm : null;
  const at = mode === 'journal' ? nanometres(0) : mode === 'setting' ? setting : null;
  const { needle, name: gauge } = instrumentFor(document, 'trials');
  const parsed = parseLength(typed.text, { unit, setting: at, needle });
  const nm = trialLength(typed.text, { unit, mode, setting, needle });
  // The sign of a needle is a trap: which way it goes is said in words.
  const way =
    parsed.ok && parsed.deviation !== null && mode === 'setting'
      ? `, ${parsed.deviation < 0 ? 'smaller' : 'bigger'} than the setting`
      : '';
  return {
    typed,
    zero,
    /** The gauge whose needle has no sense yet, where the figure needs one; else null. */
    gaugeToAsk: !parsed.ok && parsed.code === 'no-needle' ? gauge : null,
    zeroFault: zero.text.trim() !== '' && !readZero.ok ? readZero.message : null,
    fault: isTried && typed.text.trim() !== '' && !parsed.ok ? parsed.message : null,
    hint: nm === null ? MODE_HINTS[mode] : `${mode === 'journal' ? 'Clearance' : 'Bore'} ${bothUnits(nm, unit)}${way}`,
    /** Saves the reading; where it cannot be read, says so from then on. */
    keep: () => {
      setTried(true);
      if (nm === null) return;
      add({ text: typed.text.trim(), mode, setting: mode === 'setting' ? setting : null, needle, nm });
      typed.settled('');
      if (setting !== null) zero.settled(written(setting));
      setTried(false);
    },
  };
}
