import { lengthText, type OldHalf, shellWorn, suggestedLooks, WEAR_PATTERNS, wearPattern } from '@fettle/core';
import styled from 'styled-components';
import { PhotoField } from '../job/PhotoField.js';
import { WordsField } from '../typing/WordsField.js';
import { Button } from '../ui/Button.js';
import { PanelTitle, Quiet, Row } from '../ui/Panel.js';
import { OldLength } from './OldLength.js';
import type { CameApartWork, HalfSide } from './useCameApart.js';

const Patterns = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 0.35rem;
  margin: 0.4rem 0;
  button { padding: 0.1rem 0.6rem; font-weight: 400; }
  button[aria-pressed='true'] { background: var(--accent-soft); border-color: var(--accent); border-width: 2px; font-weight: 700; }
`;

const NAMES = { upper: 'Upper shell', lower: 'Lower shell' } as const;

/** An old shell: how it looks, in patterns to touch, words, a picture and its wall. */
export function OldShell({ work, side, half }: { work: CameApartWork; side: HalfSide; half: OldHalf }) {
  const { job, open, document, setHalf } = work;
  const { unit } = document;
  const worn = shellWorn(document.before, document, open, side);
  const then = document.before?.fitted[open]?.[side] ?? null;
  const name = `${NAMES[side].toLowerCase()} of ${open}`;
  return (
    <section aria-label={`Old ${name}`}>
      <PanelTitle as="h3">{NAMES[side]}</PanelTitle>
      {then && (
        <Quiet>
          Fitted: {then.label}, wall {lengthText(then.wall, unit)}
        </Quiet>
      )}
      <Patterns role="group" aria-label={`Wear on the ${name}`}>
        {WEAR_PATTERNS.map((pattern) => {
          const isOn = half.patterns.includes(pattern);
          return (
            <Button
              key={pattern}
              aria-pressed={isOn}
              onPress={() =>
                setHalf(side, {
                  patterns: isOn ? half.patterns.filter((one) => one !== pattern) : [...half.patterns, pattern],
                })
              }
            >
              {wearPattern(pattern).name}
            </Button>
          );
        })}
      </Patterns>
      {half.patterns.map((pattern) => (
        <Quiet key={pattern}>
          <strong>{wearPattern(pattern).name}</strong>: {wearPattern(pattern).seen}.
          {suggestedLooks([pattern]).length === 0 && ' Normal wear.'}
        </Quiet>
      ))}
      <Row style={{ alignItems: 'start', marginTop: '0.4rem' }}>
        <WordsField
          job={job.id}
          part={`apart ${open} ${side}`}
          field="words"
          label="Other marks"
          value={half.words}
          most={500}
          onCommit={(words) => setHalf(side, { words })}
        />
        <OldLength
          work={work}
          kept={{ part: `apart ${open} ${side}`, field: 'wall' }}
          label="Old wall"
          value={half.wall}
          onKeep={(wall) => setHalf(side, { wall })}
        />
      </Row>
      {worn !== null && (
        <Quiet>
          Worn by <strong className="figure">{lengthText(worn, unit)}</strong> since it was fitted.
        </Quiet>
      )}
      <PhotoField
        job={job.id}
        label={`Picture of the old ${name}`}
        photo={half.photo}
        alt={`Picture of the old ${name}`}
        onKept={(photo) => setHalf(side, { photo })}
      />
    </section>
  );
}
