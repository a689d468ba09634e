import { capsAsk, capsOn, FAMILY_TABLE, FEATURE_TABLE, type Feature, momentText } from '@fettle/core';
import { type OpenJob, useChangeDocument } from '../job/useJob.js';
import { useBy } from '../person/useBy.js';
import { Button } from '../ui/Button.js';
import { Notice } from '../ui/Notice.js';
import { Quiet, Row } from '../ui/Panel.js';

interface CapsAskProps {
  readonly job: Pick<OpenJob, 'id' | 'document'>;
  readonly feature: Feature;
}

/** Asks once whether the caps are on as a bore must be read: in place and direction, lubricated and torqued. The answer goes on the sheet. */
export function CapsAsk({ job, feature }: CapsAskProps) {
  const change = useChangeDocument(job);
  const by = useBy();
  const { document } = job;
  const said = capsOn(document, feature);
  const isStale = said === null && document.measuring.capsOn?.[feature] !== undefined;
  const { lubricant, torque } = capsAsk(document, feature);
  const { words, family } = FEATURE_TABLE[feature];
  const set = (answer: { by: string; at: string } | null) =>
    change((old) => {
      const { [feature]: _, ...others } = old.measuring.capsOn ?? {};
      const capsOn = answer === null ? others : { ...others, [feature]: answer };
      return { ...old, measuring: { ...old.measuring, capsOn } };
    }, `caps while the ${words} are read`);
  if (said) {
    return (
      <Row>
        <Quiet>
          Caps in their places and directions, lubricated and torqued: {said.by}, {momentText(said.at)}.
        </Quiet>
        <Button $kind="quiet" aria-label={`Undo: caps while the ${words} are read`} onPress={() => set(null)}>
          Undo
        </Button>
      </Row>
    );
  }
  return (
    <Notice actions={<Button onPress={() => set({ by, at: new Date().toISOString() })}>Caps on and torqued</Button>}>
      <strong>
        {isStale ? 'Caps or fasteners were changed since: are' : 'Before you read: are'} the caps on, without shells?
      </strong>{' '}
      {FAMILY_TABLE[family].housingsMove
        ? 'Each on its own rod, marks on one side'
        : 'Each in its place, arrow to the front'}
      ; threads and under the heads lubricated{lubricant === '' ? ' as the figure asks' : ` with ${lubricant}`}; torqued
      in steps
      {torque === '' ? ' to the figure' : `: ${torque}`}.
    </Notice>
  );
}
