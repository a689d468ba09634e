import type { StationCheck } from '@fettle/core';
import { momentText } from '@fettle/core';
import { PhotoField } from '../job/PhotoField.js';
import { Ask } from '../ui/Ask.js';
import { Button } from '../ui/Button.js';
import { Field } from '../ui/Field.js';
import { Row } from '../ui/Panel.js';
import { useKeptText } from '../ui/useKeptText.js';
import type { AssemblyWork } from './useAssembly.js';

/** What was found at a check: words, a picture, and what is decided about it, by whom. */
export function FoundFields({ work, check, name }: { work: AssemblyWork; check: StationCheck; name: string }) {
  const { job, say, decide } = work;
  const { made } = check;
  const words = useKeptText({ of: job.id, part: 'found', field: check.place }, made?.words ?? '');
  const decision = useKeptText({ of: job.id, part: 'decision', field: check.place }, made?.decision?.words ?? '');
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
      <PhotoField
        job={job.id}
        label={`Picture: ${name}`}
        photo={made?.photo ?? null}
        alt={`Picture: ${made?.words || name}`}
        onKept={(photo) => say([check], { photo })}
      />
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
