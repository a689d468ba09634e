import { type Feature, formatExactLength, gaugeLineSchema, limitAt, type Nanometres, nanometres } from '@fettle/core';
import { useState } from 'react';
import type { OpenJob } from '../../job/useJob.js';
import { Button } from '../../ui/Button.js';
import { Choice } from '../../ui/Choice.js';
import { Field } from '../../ui/Field.js';
import { FieldPairs, Fold } from '../../ui/Fold.js';
import { Panel, Quiet, Row } from '../../ui/Panel.js';
import { useKeptText } from '../../ui/useKeptText.js';
import { useGauge } from './useGauge.js';

const BAUDS = [1200, 2400, 4800, 9600, 19_200, 38_400, 57_600, 115_200];

/** What the simulated gauge shows: sizes that go to and fro within the limits, so that every one of them can be right. */
function shownBy({ document }: Pick<OpenJob, 'document'>, feature: Feature, pressed: number): string {
  const { unit } = document;
  const limit = limitAt(document, feature, null);
  const step = unit === 'mm' ? 1000 : 2540;
  const low = limit?.low ?? ((unit === 'mm' ? 60_000_000 : 61_000_000) as Nanometres);
  const steps = Math.max(1, Math.floor(((limit?.high ?? low + 10 * step) - low) / step));
  return formatExactLength(nanometres(low + ((pressed * 7) % (steps + 1)) * step), unit, unit === 'mm' ? 3 : 4);
}

/** A gauge with a data cable, and one that is only simulated: what they show is typed into the box in hand. Folded away. */
export function GaugePanel({
  job,
  feature,
}: {
  readonly job: Pick<OpenJob, 'id' | 'document'>;
  readonly feature: Feature;
}) {
  const gauge = useGauge();
  const { line, setLine, name, heard, press } = gauge;
  const {
    text: pattern,
    setText,
    settled,
    isLeftOver,
  } = useKeptText({ of: 'bench', part: 'gauge', field: 'line' }, line.pattern);
  const [pressed, setPressed] = useState(0);
  const isRight = gaugeLineSchema.shape.pattern.safeParse(pattern).success;
  return (
    <Panel aria-label="Gauge with a data cable">
      <Fold>
        <summary>Gauge with data cable: {name === null ? 'none' : `listening to ${name}`}</summary>
        <FieldPairs>
          <Field
            label="A line it sends, with # for the figure"
            figure
            inputMode="text"
            value={pattern}
            fault={isRight ? null : 'Put one # where the figure goes.'}
            isLeftOver={isLeftOver}
            onChange={setText}
            onBlur={() => {
              if (!isRight) return;
              setLine({ pattern });
              settled(pattern);
            }}
          />
          <Choice
            label="Unit of its figures"
            value={line.unit ?? 'job'}
            options={[
              { value: 'job', label: 'as the engine' },
              { value: 'mm', label: 'mm' },
              { value: 'in', label: 'in' },
            ]}
            onChange={(unit) => setLine({ unit: unit === 'job' ? null : unit })}
          />
          <Choice
            label="Baud rate"
            value={String(line.baud)}
            options={BAUDS.map((baud) => ({ value: String(baud), label: String(baud) }))}
            onChange={(baud) => setLine({ baud: Number(baud) })}
          />
        </FieldPairs>
        <Row style={{ margin: '0.75rem 0 0.25rem' }}>
          {name === null ? (
            <>
              <Button isDisabled={!gauge.hasSerial} onPress={gauge.connect}>
                Connect a gauge
              </Button>
              <Button onPress={gauge.simulate}>Simulated gauge</Button>
            </>
          ) : (
            <Button onPress={gauge.letGo}>Disconnect</Button>
          )}
          {press && (
            // Pressed without taking the focus: the box in hand stays in hand, as with a button on the gauge.
            <Button
              preventFocusOnPress
              onPress={() => {
                press(shownBy(job, feature, pressed));
                setPressed(pressed + 1);
              }}
            >
              Press its data button
            </Button>
          )}
        </Row>
        {heard && (
          <p role={heard.isFault ? 'alert' : 'status'}>{heard.isFault ? heard.text : `It sent ${heard.text}.`}</p>
        )}
        <Quiet>
          {gauge.hasSerial
            ? 'Its readings are typed into the current field, with Enter.'
            : 'This browser reads no serial port; a gauge that types as a keyboard does works everywhere.'}
        </Quiet>
      </Fold>
    </Panel>
  );
}
