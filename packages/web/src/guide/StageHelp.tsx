import type { Stage } from '@fettle/core';
import { X } from 'lucide-react';
import { useEffect, useRef } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { Button } from '../ui/Button.js';
import { GuideText } from './GuideText.js';
import { guidePage } from './guidePages.js';

const Aside = styled.aside`
  position: sticky; top: 0.5rem; max-height: calc(100vh - 1rem); overflow: auto; padding: 0.75rem 1rem; background: var(--surface);
  border: var(--rule) solid var(--line); border-radius: var(--radius);
  .head { display: flex; justify-content: space-between; align-items: center; gap: 0.5rem; }
  @media (max-width: 1080px) { position: static; max-height: none; }
`;

interface StageHelpProps {
  readonly stage: Stage;
  readonly onClose: () => void;
}

/** The handbook's page of a stage, beside it. */
export function StageHelp({ stage, onClose }: StageHelpProps) {
  const place = useRef<HTMLElement>(null);
  useEffect(() => place.current?.focus({ preventScroll: true }), []);
  return (
    <Aside ref={place} tabIndex={-1} aria-label="Help" className="no-print">
      <div className="head">
        <Link to={`/guide/${guidePage(stage)}`}>Open the handbook</Link>
        <Button $kind="quiet" aria-label="Close help" onPress={onClose}>
          <X aria-hidden size={20} />
        </Button>
      </div>
      <GuideText stage={stage} />
    </Aside>
  );
}
