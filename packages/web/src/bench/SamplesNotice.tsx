import type { SamplesRemoved } from '@fettle/core';
import { useState } from 'react';
import { Ask } from '../ui/Ask.js';
import { Button } from '../ui/Button.js';
import { Notice } from '../ui/Notice.js';
import { Quiet, Row } from '../ui/Panel.js';
import { refusalInWords } from '../wire/ask.js';
import { tell } from '../wire/tell.js';

const counted = (count: number, one: string, more: string) => `${count} ${count === 1 ? one : more}`;

function removedText({ engines, types, instruments, stock, kept }: SamplesRemoved): string {
  if (engines + types + instruments + stock === 0 && kept.length === 0) return 'The samples were removed already.';
  const what = [
    counted(engines, 'engine closed', 'engines closed'),
    counted(types, 'type archived', 'types archived'),
    counted(instruments, 'instrument retired', 'instruments retired'),
    counted(stock, 'kind of stock removed', 'kinds of stock removed'),
  ].join(', ');
  return `Samples removed: ${what}.${kept.length > 0 ? ` Kept, as reserved for an engine or fitted: ${kept.join(', ')}.` : ''}`;
}

interface SamplesNoticeProps {
  /** True if a sample engine is in the list. */
  readonly areThere: boolean;
  readonly by: string;
}

/** Says what the samples are for, and removes them all. */
export function SamplesNotice({ areThere, by }: SamplesNoticeProps) {
  const [isAsked, setAsked] = useState(false);
  const [fault, setFault] = useState<string | null>(null);
  const [removed, setRemoved] = useState<SamplesRemoved | null>(null);
  const remove = async () => {
    setFault(null);
    try {
      setRemoved(await tell('removeSamples', { body: { by } }));
      setAsked(false);
    } catch (error) {
      setFault(refusalInWords(error));
    }
  };
  if (removed) return <Notice>{removedText(removed)}</Notice>;
  if (!areThere) return null;
  return (
    <>
      <Row style={{ justifyContent: 'space-between' }}>
        <Quiet>Engines marked Sample show how Fettle works.</Quiet>
        <Button $kind="quiet" aria-expanded={isAsked} onPress={() => setAsked(!isAsked)}>
          Remove all samples
        </Button>
      </Row>
      {fault && <Notice urgent>{fault}</Notice>}
      {isAsked && (
        <Ask aria-label="Remove all samples?">
          <strong>
            Close the sample engines, archive the sample types, retire the sample instruments and remove the sample
            stock?
          </strong>
          <Quiet>
            Engines can be reopened, types restored, instruments put back in use; the stock history undoes the stock.
          </Quiet>
          <Row style={{ marginTop: '0.4rem' }}>
            <Button $kind="primary" autoFocus onPress={() => void remove()}>
              Remove samples
            </Button>
            <Button onPress={() => setAsked(false)}>Cancel</Button>
          </Row>
        </Ask>
      )}
    </>
  );
}
