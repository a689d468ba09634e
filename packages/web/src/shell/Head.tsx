import { mayDo } from '@fettle/core';
import { Menu, UserRound } from 'lucide-react';
import { useEffect, useState } from 'react';
import { Link, NavLink, useLocation } from 'react-router';
import styled from 'styled-components';
import { useAppDispatch, useAppSelector } from '../base/store.js';
import { useSettled } from '../base/useSettled.js';
import { lazily } from '../live/lazily.js';
import { personNamed } from '../person/personSlice.js';
import { SavingMark } from '../saving/SavingMark.js';
import { applyAppearance } from '../ui/appearanceSlice.js';
import { fieldBox } from '../ui/Field.js';
import { useKeptText } from '../ui/useKeptText.js';

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

/** Not part of the first visit: a list that opens is more than a bench list needs. */
export const lookChoice = lazily(async () => (await import('./LookChoice.js')).LookChoice, true);
const LookChoice = lookChoice.View;

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
export function Head({ isOut }: { readonly isOut: boolean }) {
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
