import { mayDo } from '@fettle/core';
import { Menu, UserRound } from 'lucide-react';
import { type ComponentProps, useEffect, useState } from 'react';
import { Link, NavLink, useLocation, useNavigate } from 'react-router';
import styled from 'styled-components';
import { Gate } from '../access/Gate.js';
import { HeldBack } from '../access/HeldBack.js';
import { listenForShortcuts, shortcutsHere, useShortcut } from '../base/shortcuts.js';
import { useAppDispatch, useAppSelector } from '../base/store.js';
import { useSettled } from '../base/useSettled.js';
import { lazily, lazilyWith } from '../live/lazily.js';
import { personNamed } from '../person/personSlice.js';
import { useThousandths } from '../person/useClearances.js';
import { SavingMark } from '../saving/SavingMark.js';
import { applyAppearance, thousandthsChosen } from '../ui/appearanceSlice.js';
import { fieldBox } from '../ui/Field.js';
import { keepFocus } from '../ui/keepFocus.js';
import { Notice } from '../ui/Notice.js';
import { useKeptText } from '../ui/useKeptText.js';
import type { ShortcutsDialog } from './ShortcutsDialog.js';

const Bar = styled.header`
  display: flex;
  align-items: center;
  gap: 0.75rem;
  min-height: 56px;
  padding: 0 1.25rem;
  background: var(--surface);
  border-bottom: var(--rule) solid var(--line);
  .own { display: contents; }
  .menu { width: 48px; height: 48px; align-items: center; justify-content: center; border: 0; background: none; color: var(--ink); cursor: pointer; }
  .home {
    display: inline-flex; align-items: center; gap: 0.6rem; min-height: var(--target);
    font-size: var(--size-lead); font-weight: 800; letter-spacing: -0.01em; color: var(--ink); text-decoration: none;
  }
  nav, .space { flex: 1; }
  nav { display: flex; flex-wrap: wrap; }
  /* What is said of saving may be long: it wraps in its place, and nothing else moves. */
  output { flex: 0 1 auto; min-width: 6rem; justify-content: flex-end; line-height: 1.15; text-wrap: pretty; }
  output svg { flex: none; }
  /* Its place is as wide whatever it says: nothing beside it moves. */
  @media (min-width: 1261px) { nav { flex: 1 1 auto; } output { flex: 0 0 9rem; } }
  nav a {
    display: inline-flex; align-items: center; min-height: var(--target); padding: 0 0.5rem; color: var(--ink);
    font-weight: 600; text-decoration: none; white-space: nowrap;
  }
  nav a:hover { text-decoration: underline; }
  nav a.active { color: var(--accent); box-shadow: inset 0 -3px 0 var(--accent); }
  label { flex: 0 1 auto; min-width: 0; display: inline-flex; align-items: center; gap: 0.4rem; font-size: var(--size-small); color: var(--ink-soft); }
  .me { flex: 0 1 auto; min-width: 5rem; display: inline-flex; align-items: center; gap: 0.35rem; min-height: var(--target); max-width: 12rem; font-weight: 600; color: var(--ink); }
  .me span { overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
  .look { flex: 0 1 10rem; min-width: 8.5rem; display: inline-flex; align-items: center; gap: 0.4rem; font-size: var(--size-small); color: var(--ink-soft); }
  .look > :last-child { flex: 1; }
  input { ${fieldBox} width: auto; }
  input { flex: 0 1 7rem; width: 7rem; min-width: 5rem; }
  /* Six pages and a long name stand in one line too. */
  @media (min-width: 1261px) and (max-width: 1440px) {
    &:has(nav a:nth-child(6)) {
      output { flex-basis: 7rem; }
      nav a { padding: 0 0.4rem; font-size: 0.9375rem; }
      .look > span:first-child { display: none; }
      .look { flex-basis: 8.5rem; }
    }
    /* And the seven that an owner has. */
    &:has(nav a:nth-child(7)) {
      gap: 0.5rem;
      nav a { padding: 0 0.3rem; font-size: 0.875rem; }
      output { flex-basis: 6rem; }
      .look { flex-basis: 7rem; min-width: 7rem; }
    }
  }
  @media (max-width: 1260px) {
    flex-wrap: wrap; gap: 0.25rem 0.75rem; padding: 0.25rem 0.75rem;
    nav { order: 1; flex-basis: 100%; }
    .home { flex: 1; }
    .look { flex: 0 1 auto; min-width: 0; }
    output { min-width: 0; }
  }
  @media (min-width: 641px) { .menu { display: none; } }
  @media (max-width: 640px) {
    min-height: 48px; padding: 0 0.25rem 0 0.75rem;
    output { order: 0; flex: 1 1 0; min-width: 4.5rem; }
    .menu { display: inline-flex; }
    .own.folded { display: none; }
    .folded { display: none; }
    .folded.open { display: flex; flex: 1 1 100%; flex-wrap: wrap; align-items: center; gap: 0.25rem 0.75rem; padding: 0 0.5rem 0.75rem 0; }
    nav.folded.open { flex-direction: column; align-items: stretch; gap: 0; }
    nav a { padding: 0 0.5rem; }
    nav a.active { box-shadow: inset 3px 0 0 var(--accent); }
    .look { flex: 1 1 9rem; min-width: 9rem; }
  }
`;

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

/** How long after the page has come the list of looks is fetched, ms. */
const LATER_MS = 2000;

function PersonField() {
  const dispatch = useAppDispatch();
  const name = useAppSelector((state) => state.person.name);
  const { text, setText, settled } = useKeptText({ of: 'bench', part: 'person', field: 'name' }, name);
  return (
    <label>
      Fitter
      <input
        value={text}
        maxLength={60}
        placeholder="your name"
        autoComplete="name"
        onChange={(event) => setText(event.target.value)}
        onBlur={() => {
          dispatch(personNamed(text));
          settled(text);
        }}
      />
    </label>
  );
}

/** What somebody has to decide is seldom there; its words are those of the whole job. */
const decisions = lazily(async () => (await import('../saving/Decisions.js')).Decisions, true);
const Decisions = decisions.View;

const missingNotice = lazily(async () => (await import('../saving/MissingNotice.js')).MissingNotice, true);
const MissingNotice = missingNotice.View;

const versionNotice = lazily(async () => (await import('./VersionNotice.js')).VersionNotice, true);
const VersionNotice = versionNotice.View;

/** Not part of the first visit: a list that opens is more than a bench list needs. */
const lookChoice = lazily(async () => (await import('./LookChoice.js')).LookChoice, true);
const LookChoice = lookChoice.View;

/** Fetches what stands beside the views, so that it is there when the server is not. */
export async function fetchAside(): Promise<void> {
  for (const { fetch } of [decisions, lookChoice, missingNotice, versionNotice, shortcutsDialog]) await fetch();
}

function AppearanceField({ className }: { readonly className: string }) {
  const setting = useAppSelector((state) => state.appearance.setting);
  const isReady = useSettled(true, LATER_MS, false);
  useEffect(() => applyAppearance(setting), [setting]);
  return <div className={`look ${className}`}>{isReady && <LookChoice />}</div>;
}

const PAGES = [
  { to: '/', label: 'Engines', isWhole: true },
  { to: '/drawer', label: 'Workshop stock', isWhole: false },
  { to: '/types', label: 'Engine types', isWhole: false },
  { to: '/instruments', label: 'Instruments', isWhole: false },
  { to: '/together', label: 'Several engines', isWhole: false },
  { to: '/known', label: 'What is known', isWhole: false },
  { to: '/sum', label: 'Quick calculation', isWhole: false },
] as const;

const PEOPLE = { to: '/people', label: 'Users and devices', isWhole: false } as const;

/** Who is signed in; leads to their account. */
function SignedIn() {
  const person = useAppSelector((state) => state.access.session?.person ?? null);
  if (!person) return null;
  return (
    <Link className="me" to="/me" aria-label={`Signed in as ${person.name}: your account`}>
      <UserRound aria-hidden size={18} />
      <span>{person.name}</span>
    </Link>
  );
}

/** The workshop's pages that lead on, who is here, the look; on a phone folded behind one button. */
function Head({ isOut }: { readonly isOut: boolean }) {
  const person = useAppSelector((state) => state.person.name);
  const isOn = useAppSelector((state) => state.access.isOn === true);
  const mayKeep = useAppSelector(({ access }) => mayDo(access.session?.person?.role ?? null, 'people'));
  // The menu of a phone, open on the page that it was opened on: another page closes it.
  const { pathname } = useLocation();
  const [menuAt, setMenuAt] = useState<string | null>(null);
  const folded = `folded${menuAt === pathname ? ' open' : ''}`;
  return (
    <Bar className="no-print">
      <Link className="home" to="/">
        <svg width="30" height="30" viewBox="0 0 32 32" aria-hidden>
          <path d="M3 15a13 13 0 0 1 26 0h-5.5a7.5 7.5 0 0 0-15 0z" fill="var(--accent)" />
          <path d="M3 18a13 13 0 0 0 26 0h-5.5a7.5 7.5 0 0 1-15 0z" fill="var(--brass)" />
        </svg>
        Fettle
      </Link>
      {isOut ? (
        <span className="space" />
      ) : (
        <nav aria-label="Pages" className={folded}>
          {[...PAGES, ...(mayKeep ? [PEOPLE] : [])].map(({ to, label, isWhole }) => (
            <NavLink key={to} to={to} end={isWhole}>
              {label}
            </NavLink>
          ))}
        </nav>
      )}
      <SavingMark isQuiet={isOut} />
      <button
        type="button"
        className="menu"
        aria-label="Menu"
        aria-expanded={menuAt === pathname}
        onClick={() => setMenuAt(menuAt === pathname ? null : pathname)}
      >
        <Menu aria-hidden size={24} />
      </button>
      {isOut ? null : <div className={`own ${folded}`}>{isOn ? <SignedIn /> : <PersonField key={person} />}</div>}
      <AppearanceField className={folded} />
    </Bar>
  );
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
