import { type ComponentProps, useEffect, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import styled from 'styled-components';
import { Gate } from '../access/Gate.js';
import { HeldBack } from '../access/HeldBack.js';
import { listenForShortcuts, shortcutsHere, useShortcut } from '../base/shortcuts.js';
import { useAppDispatch, useAppSelector } from '../base/store.js';
import { useSettled } from '../base/useSettled.js';
import { lazily, lazilyWith } from '../live/lazily.js';
import { useThousandths } from '../person/useClearances.js';
import { thousandthsChosen } from '../ui/appearanceSlice.js';
import { keepFocus } from '../ui/keepFocus.js';
import { Notice } from '../ui/Notice.js';
import { Head, lookChoice } from './Head.js';
import type { ShortcutsDialog } from './ShortcutsDialog.js';

/** For who comes by keyboard: past the head, to the work. */
const Skip = styled.a`
  position: fixed; z-index: 20; left: 0.5rem; top: 0.25rem; padding: 0.6rem 1rem; background: var(--surface); color: var(--accent);
  border: 2px solid var(--accent); border-radius: var(--radius); font-weight: 600;
  &:not(:focus) { clip-path: inset(50%); width: 1px; height: 1px; overflow: hidden; padding: 0; border: 0; }
`;

const Main = styled.main`
  padding: 0.5rem 1.25rem 1.25rem;
  display: flex;
  flex-direction: column;
  gap: 0.6rem;
  &:focus { outline: none; }
  /* What stands at the foot of the page comes after the screen, so that it does not move while the view comes. */
  @media screen { min-height: 100vh; }
  @media (max-width: 640px) { padding: 0.25rem 0.75rem 0.75rem; gap: 0.25rem; }
  @media print { padding: 0; }
`;

const Foot = styled.footer`
  display: flex; flex-wrap: wrap; gap: 0.25rem 1.5rem; padding: 0 1.25rem 1rem; font-size: var(--size-small);
  a, button { min-height: 32px; display: inline-flex; align-items: center; padding: 0; border: 0; background: none; color: var(--accent); font: inherit; text-decoration: underline; cursor: pointer; }
  label { min-height: 32px; display: inline-flex; align-items: center; gap: 0.4rem; }
  input { width: 20px; height: 20px; accent-color: var(--accent); }
  @media (max-width: 640px) { padding: 0 0.75rem 4rem; }
`;

const shortcutsDialog = lazilyWith<ComponentProps<typeof ShortcutsDialog>>(
  async () => (await import('./ShortcutsDialog.js')).ShortcutsDialog,
);

/** Id of the view's place, where skipping the head leads. */
const WORK = 'work';

/** How long after the page has come it is asked what never arrived, ms. */
const LATER_MS = 2000;

/** What somebody has to decide is seldom there; its words are those of the whole job. */
const decisions = lazily(async () => (await import('../saving/Decisions.js')).Decisions, true);
const Decisions = decisions.View;

const missingNotice = lazily(async () => (await import('../saving/MissingNotice.js')).MissingNotice, true);
const MissingNotice = missingNotice.View;

const versionNotice = lazily(async () => (await import('./VersionNotice.js')).VersionNotice, true);
const VersionNotice = versionNotice.View;

/** Fetches what stands beside the views, so that it is there when the server is not. */
export async function fetchAside(): Promise<void> {
  for (const { fetch } of [decisions, lookChoice, missingNotice, versionNotice, shortcutsDialog]) await fetch();
}

/** What is told above every view: decisions that are open, changes that never came, a newer version, the certificate. */
function Notices({ isOut }: { readonly isOut: boolean }) {
  const isNew = useAppSelector((state) => state.version !== 'none');
  const certificate = useAppSelector(({ access }) => access.session?.certificate ?? null);
  // Who signs in by id, anybody else as whoever is at this machine; a browser that was told is not asked again.
  const missingOf = useAppSelector(({ access: { isOn, session } }) =>
    isOn === null || isOut ? null : isOn ? (session?.person?.id ?? null) : '',
  );
  const isLater = useSettled(true, LATER_MS, false);
  const isAsked = useAppSelector(
    ({ saving }) => saving.clashes.length > 0 || saving.refusals.length > 0 || saving.pageFault !== null,
  );
  return (
    <>
      {isAsked && <Decisions />}
      {missingOf !== null && isLater && <MissingNotice key={missingOf} person={missingOf} />}
      {isNew && <VersionNotice />}
      {certificate !== null && <Notice urgent>{certificate}</Notice>}
    </>
  );
}

/** What stands around every view: the ways to the other pages, the state of saving, who is at this device, the look. */
export function Frame() {
  const person = useAppSelector((state) => state.person.name);
  const dispatch = useAppDispatch();
  const isThou = useThousandths();
  // Where one has to sign in first, nothing else leads anywhere yet.
  const isOut = useAppSelector(
    ({ access: { isOn, session } }) => isOn === true && session?.person?.mustChange !== false,
  );
  const [areKeysShown, setKeys] = useState(false);
  const navigate = useNavigate();
  useEffect(listenForShortcuts, []);
  useEffect(() => keepFocus(), []);
  useShortcut('?', 'Keyboard shortcuts', () => setKeys(true));
  useShortcut('c', 'Quick calculation', isOut ? null : () => void navigate('/sum'));
  return (
    <>
      <Skip
        href="#work"
        className="no-print"
        onClick={(event) => {
          // The address stays: it is the view's.
          event.preventDefault();
          document.getElementById(WORK)?.focus();
        }}
      >
        Skip to content
      </Skip>
      <Head isOut={isOut} />
      <Main id={WORK} tabIndex={-1}>
        <Notices isOut={isOut} />
        <HeldBack />
        <Gate />
      </Main>
      <Foot className="no-print">
        <Link to="/guide">Handbook</Link>
        <button type="button" onClick={() => setKeys(true)}>
          Keyboard shortcuts
        </button>
        <label>
          <input
            type="checkbox"
            checked={isThou}
            onChange={({ target }) => dispatch(thousandthsChosen({ person, isOn: target.checked }))}
          />
          Inch clearances in thousandths
        </label>
      </Foot>
      {areKeysShown && <shortcutsDialog.View shortcuts={shortcutsHere()} onClose={() => setKeys(false)} />}
    </>
  );
}
