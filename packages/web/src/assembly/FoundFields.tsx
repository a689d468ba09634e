import type { StationCheck } from '@fettle/core';
import { momentText } from '@fettle/core';
import { Camera } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import { keepPhoto } from '../job/keepPhoto.js';
import { useBy } from '../person/useBy.js';
import { Ask } from '../ui/Ask.js';
import { Button } from '../ui/Button.js';
import { Field } from '../ui/Field.js';
import { FileButton } from '../ui/FileButton.js';
import { Quiet, Row } from '../ui/Panel.js';
import { useKeptText } from '../ui/useKeptText.js';
import { refusalInWords } from '../wire/ask.js';
import type { AssemblyWork } from './useAssembly.js';

const Picture = styled.img`
  display: block;
  max-width: min(100%, 22rem);
  max-height: 14rem;
  margin: 0.5rem 0;
  border: var(--rule) solid var(--line-strong);
`;

/** What was found at a check: words, a picture, and what is decided about it, by whom. */
export function FoundFields({ work, check, name }: { work: AssemblyWork; check: StationCheck; name: string }) {
  const { job, say, decide } = work;
  const by = useBy();
  const { made } = check;
  const words = useKeptText({ of: job.id, part: 'found', field: check.place }, made?.words ?? '');
  const decision = useKeptText({ of: job.id, part: 'decision', field: check.place }, made?.decision?.words ?? '');
  const [sending, setSending] = useState<{ busy: boolean; fault: string | null }>({ busy: false, fault: null });
  const take = async (file: File) => {
    setSending({ busy: true, fault: null });
    try {
      say([check], { photo: await keepPhoto(job.id, by, file) });
      setSending({ busy: false, fault: null });
    } catch (error) {
      setSending({ busy: false, fault: refusalInWords(error) });
    }
  };
  return (
    <Ask aria-label={`Problem: ${name}`}>
      <Field
        label={
          <>
            Problem<span className="visually-hidden">: {name}</span>
          </>
        }
        value={words.text}
        maxLength={500}
        autoFocus={made?.words === ''}
        placeholder="such as oil hole a third covered"
        onChange={words.setText}
        isLeftOver={words.isLeftOver}
        onBlur={() => {
          words.settled(words.text.trim());
          if (words.text.trim() !== made?.words) say([check], { words: words.text.trim() });
        }}
      />
      {made?.photo && (
        <Picture src={`/api/jobs/${job.id}/photos/${made.photo}`} alt={`Picture: ${made.words || name}`} />
      )}
      <Row style={{ margin: '0.4rem 0' }}>
        <FileButton label={`Picture: ${name}`} accept="image/*" onChoose={(file) => void take(file)}>
          <Camera aria-hidden size={18} />
          {made?.photo ? 'Another photo' : 'Add photo'}
        </FileButton>
        {sending.busy && <Quiet role="status">Saving the photo …</Quiet>}
        {sending.fault !== null && <p role="alert">{sending.fault}</p>}
      </Row>
      <Field
        label={
          <>
            {made?.decision ? `Decided by ${made.decision.by}, ${momentText(made.decision.at)}` : 'Decision'}
            <span className="visually-hidden">: {name}</span>
          </>
        }
        value={decision.text}
        maxLength={500}
        placeholder="such as hole dressed, edges rounded; or left as it is"
        onChange={decision.setText}
        isLeftOver={decision.isLeftOver}
        onBlur={() => {
          decision.settled(decision.text.trim());
          if (decision.text.trim() !== (made?.decision?.words ?? '')) decide(check, decision.text.trim());
        }}
      />
      <Row style={{ marginTop: '0.5rem' }}>
        <Button onPress={() => say([check], { state: 'done' })}>Now OK</Button>
      </Row>
    </Ask>
  );
}
