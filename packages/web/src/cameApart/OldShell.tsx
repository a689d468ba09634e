import { lengthText, type OldHalf, shellWorn, suggestedLooks, WEAR_PATTERNS, wearPattern } from '@fettle/core';
import { Camera } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import { keepPhoto } from '../job/keepPhoto.js';
import { useBy } from '../person/useBy.js';
import { WordsField } from '../typing/WordsField.js';
import { Button } from '../ui/Button.js';
import { FileButton } from '../ui/FileButton.js';
import { PanelTitle, Quiet, Row } from '../ui/Panel.js';
import { refusalInWords } from '../wire/ask.js';
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

const Picture = styled.img`
  display: block;
  max-width: min(100%, 18rem);
  max-height: 12rem;
  margin: 0.5rem 0;
  border: var(--rule) solid var(--line-strong);
`;

const NAMES = { upper: 'Upper shell', lower: 'Lower shell' } as const;

/** An old shell: how it looks, in patterns to touch, words, a picture and its wall. */
export function OldShell({ work, side, half }: { work: CameApartWork; side: HalfSide; half: OldHalf }) {
  const { job, open, document, setHalf } = work;
  const { unit } = document;
  const by = useBy();
  const [sending, setSending] = useState<{ busy: boolean; fault: string | null }>({ busy: false, fault: null });
  const take = async (file: File) => {
    setSending({ busy: true, fault: null });
    try {
      setHalf(side, { photo: await keepPhoto(job.id, by, file) });
      setSending({ busy: false, fault: null });
    } catch (error) {
      setSending({ busy: false, fault: refusalInWords(error) });
    }
  };
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
      <Patterns role="group" aria-label={`How the ${name} looks`}>
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
          {suggestedLooks([pattern]).length === 0 && ' As it should be.'}
        </Quiet>
      ))}
      <Row style={{ alignItems: 'start', marginTop: '0.4rem' }}>
        <WordsField
          job={job.id}
          part={`apart ${open} ${side}`}
          field="words"
          label="Anything else on it"
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
      {half.photo && <Picture src={`/api/jobs/${job.id}/photos/${half.photo}`} alt={`Picture of the old ${name}`} />}
      <Row>
        <FileButton label={`Picture of the old ${name}`} accept="image/*" onChoose={(file) => void take(file)}>
          <Camera aria-hidden size={18} />
          {half.photo ? 'Another photo' : 'Add photo'}
        </FileButton>
        {sending.busy && <Quiet role="status">Saving the photo …</Quiet>}
        {sending.fault !== null && <p role="alert">{sending.fault}</p>}
      </Row>
    </section>
  );
}
