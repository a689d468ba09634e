import type { KitStep } from '@fettle/core';
import type { ReactNode } from 'react';
import styled from 'styled-components';
import { PanelTitle, Quiet, Table } from '../ui/Panel.js';
import { ChanceBar, percent } from './ChanceBar.js';

/** A table that is wider than a small screen moves by itself. */
const Scroll = styled.div`
  overflow-x: auto;
`;

interface StepsProps {
  readonly title: string;
  readonly none: string;
  readonly steps: readonly KitStep[];
  readonly words: (step: KitStep) => ReactNode;
  readonly target: number;
  readonly hasPrices: boolean;
}

/** What one unit more, or one less, would do to the chance. */
export function Steps({ title, none, steps, words, target, hasPrices }: StepsProps) {
  return (
    <>
      <PanelTitle style={{ marginTop: '1rem' }}>{title}</PanelTitle>
      {steps.length === 0 ? (
        <Quiet>{none}</Quiet>
      ) : (
        <Scroll role="region" tabIndex={0} aria-label={`Table: ${title}`}>
          <Table aria-label={title}>
            <thead>
              <tr>
                <th>{title === 'The next step up' ? 'With' : 'Without'}</th>
                {hasPrices && <th className="number">Price</th>}
                <th className="number">Chance</th>
                <th className="number">Change</th>
                <th style={{ width: '34%' }}>
                  <span className="visually-hidden">Chance drawn, 0 to 100 per cent</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {steps.map((step) => (
                <tr key={step.shells.join()}>
                  <td>{words(step)}</td>
                  {hasPrices && <td className="number">{step.price > 0 ? step.price.toFixed(2) : '·'}</td>}
                  <td className="number">{percent(step.chance.chance)}</td>
                  <td className="number">
                    {step.by > 0 ? '+' : '−'}
                    {Math.abs(step.by * 100).toFixed(1)}
                  </td>
                  <td>
                    <ChanceBar chance={step.chance} target={target} />
                  </td>
                </tr>
              ))}
            </tbody>
          </Table>
        </Scroll>
      )}
    </>
  );
}
