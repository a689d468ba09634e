import { Check, CloudOff, PencilLine, RefreshCw, TriangleAlert } from 'lucide-react';
import styled from 'styled-components';
import { useAppSelector } from '../base/store.js';
import { useFirstUnsaved } from '../base/unsaved.js';
import type { Away } from '../wire/ask.js';
import { maySend } from './maySend.js';

const Mark = styled.output<{ $tone: string }>`
  display: inline-flex;
  align-items: center;
  gap: 0.4rem;
  font-size: var(--size-small);
  font-weight: 600;
  color: ${({ $tone }) => $tone};
`;

const AWAY_WORDS: Readonly<Record<Away, string>> = {
  server: 'No server.',
  database: 'Database restarting.',
  disk: 'The server’s disk is full.',
};

/**
 * True if everything typed is on the server, on its way, or kept on this device.
 *
 * @param isQuiet whether it says nothing as long as nothing is amiss
 */
export function SavingMark({ isQuiet = false }: { readonly isQuiet?: boolean }) {
  const { parcels, clashes, refusals, unreachable, away, failing, notKept, pageFault, isRecalled } = useAppSelector(
    (state) => state.saving,
  );
  const undecided = clashes.length + refusals.length;
  const unsaved = useFirstUnsaved();
  const access = useAppSelector((state) => state.access);
  const count = parcels.length;
  const changes = `${count} ${count === 1 ? 'change' : 'changes'}`;
  if (pageFault !== null) {
    return (
      <Mark $tone="var(--blocked)">
        <TriangleAlert aria-hidden size={20} />A fault in the page: it may not have taken everything down
      </Mark>
    );
  }
  if (unreachable) {
    const only = notKept?.only ?? 0;
    const share = only === count ? '' : `here, ${only} of them `;
    const where = only === 0 ? 'on this device' : `${share}in this page only: do not close it`;
    return (
      <Mark $tone="var(--close)">
        <CloudOff aria-hidden size={20} />
        {AWAY_WORDS[away]} {count > 0 ? `${changes} saved ${where}` : 'Entries are saved here'}
      </Mark>
    );
  }
  if (count > 0 && !parcels.some((parcel) => maySend(access, parcel))) {
    return (
      <Mark $tone="var(--close)">
        <TriangleAlert aria-hidden size={20} />
        {changes} saved on this device
      </Mark>
    );
  }
  if (count > 0 && (notKept?.only ?? 0) > 0) {
    return (
      <Mark $tone="var(--close)">
        <TriangleAlert aria-hidden size={20} />
        Saving {changes}. {notKept!.only} in this page only, the browser is full: do not close it
      </Mark>
    );
  }
  const rests = parcels.filter(({ id }) => id in failing).length;
  if (rests > 0 && rests === count) {
    return (
      <Mark $tone="var(--close)">
        <TriangleAlert aria-hidden size={20} />
        The server could not save {changes}. Saved on this device, trying again
      </Mark>
    );
  }
  if (count > 0) {
    return (
      <Mark $tone="var(--ink-soft)">
        <RefreshCw aria-hidden size={20} />
        Saving {changes}
      </Mark>
    );
  }
  if (!isRecalled) {
    return (
      <Mark $tone="var(--ink-soft)">
        <RefreshCw aria-hidden size={20} />
        Checking for unsent changes
      </Mark>
    );
  }
  if (undecided > 0) {
    return (
      <Mark $tone="var(--close)">
        <TriangleAlert aria-hidden size={20} />
        Saved, except {undecided === 1 ? 'one change' : `${undecided} changes`} needing a decision
      </Mark>
    );
  }
  if (unsaved !== null) {
    return (
      <Mark $tone="var(--ink-soft)">
        <PencilLine aria-hidden size={20} />
        {unsaved}
      </Mark>
    );
  }
  if (isQuiet && notKept === null) return null;
  return notKept ? (
    <Mark $tone="var(--close)">
      <TriangleAlert aria-hidden size={20} />
      Saved. This browser cannot store unsent changes
    </Mark>
  ) : (
    <Mark $tone="var(--inside)">
      <Check aria-hidden size={20} />
      All saved
    </Mark>
  );
}
