import { hasBanks, type JobDocument, partName, rodBank, rodCount } from '@fettle/core';
import type { ChangeDocument } from '../job/useJob.js';
import { Choice } from '../ui/Choice.js';
import { Field } from '../ui/Field.js';
import { Panel, PanelTitle, Quiet } from '../ui/Panel.js';
import { useKeptText } from '../ui/useKeptText.js';
import { Extras } from './Pairs.js';

function RodField({
  id,
  number,
  document,
  change,
}: {
  id: string;
  number: number;
  document: JobDocument;
  change: ChangeDocument;
}) {
  const rod = document.rods[String(number)] ?? { mark: '', pin: null };
  const mark = useKeptText({ of: id, part: partName('bigEnd', number), field: 'mark' }, rod.mark);
  const bank = rodBank(document, number);
  const set = (part: Partial<typeof rod>) =>
    change((old) => {
      const before = old.rods[String(number)] ?? { mark: '', pin: null };
      return { ...old, rods: { ...old.rods, [String(number)]: { ...before, ...part } } };
    });
  const box = (
    <Field
      label={`R${number} mark`}
      value={mark.text}
      maxLength={20}
      onChange={mark.setText}
      isLeftOver={mark.isLeftOver}
      onBlur={() => {
        const text = mark.text.trim();
        mark.settled(text);
        if (text === rod.mark) return;
        set({ mark: text });
      }}
    />
  );
  if (bank === null) return box;
  return (
    <div>
      {box}
      <Choice
        label={`R${number} bank`}
        value={bank}
        options={[
          { value: 'A', label: 'A, front on the pin' },
          { value: 'B', label: 'B, rear on the pin' },
        ]}
        onChange={(value) => set({ bank: value })}
      />
    </div>
  );
}

/** The rods by number, each with the mark that is stamped or scratched on it. */
export function RodFields({ id, document, change }: { id: string; document: JobDocument; change: ChangeDocument }) {
  return (
    <Panel>
      <PanelTitle>Rods</PanelTitle>
      <Quiet>
        Numbered as removed. Write down marks before cleaning: scratched ones vanish. A rod keeps its cap, and may go on
        any pin{hasBanks(document.layout) && ' of its bank'} until locked under Select shells.
      </Quiet>
      <Extras>
        {Array.from({ length: rodCount(document.layout) }, (_, at) => at + 1).map((number) => (
          <RodField key={number} id={id} number={number} document={document} change={change} />
        ))}
      </Extras>
    </Panel>
  );
}
