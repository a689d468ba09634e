import { lengthText } from '@fettle/core';
import { Tag } from 'lucide-react';
import { Button } from '../ui/Button.js';
import { Field } from '../ui/Field.js';
import { Notice } from '../ui/Notice.js';
import { PanelTitle, Quiet } from '../ui/Panel.js';
import { Pairs } from './Pairs.js';
import { BALL_UNCERTAINTY, type NumberingProps, useNumbering } from './useNumbering.js';

/** One half measured over a ball, and numbered. */
export function NumberOne(props: NumberingProps) {
  const { line, unit } = props;
  const { half } = line;
  const { ball, setBall, over, setOver, number, setNumber, read, wall, findingText, numberIt } = useNumbering(props);
  return (
    <>
      <PanelTitle as="h3" style={{ fontSize: 'var(--size-body)', marginTop: '0.75rem' }}>
        Measure one and number it
      </PanelTitle>
      <Quiet>
        Measured over a ball at the crown; the ball is subtracted. A numbered shell is selected by its own wall, not its
        grade’s.
      </Quiet>
      <Pairs>
        <Field
          label={`Ball, ${unit}`}
          figure
          value={ball}
          onChange={setBall}
          fault={ball === '' || read.ball.ok ? null : read.ball.message}
        />
        <Field
          label={`Reading over the ball, ${unit}`}
          figure
          value={over}
          onChange={setOver}
          fault={over === '' || read.over.ok ? null : read.over.message}
        />
        <Field label="Its number" value={number} maxLength={20} onChange={setNumber} />
        <p style={{ alignSelf: 'center' }}>
          {wall === null ? (
            <Quiet as="span">wall = reading − ball</Quiet>
          ) : (
            <>
              Wall <strong className="figure">{lengthText(wall, unit)}</strong>
            </>
          )}
        </p>
      </Pairs>
      {findingText && (
        <Notice>
          {findingText}, beyond {lengthText(BALL_UNCERTAINTY, unit)} of the reading.
        </Notice>
      )}
      <Button isDisabled={wall === null || number.trim() === '' || half.onHand < 1} onPress={numberIt}>
        <Tag aria-hidden size={18} />
        Number it
      </Button>
    </>
  );
}
