import type { KnownScope, Unit } from '@fettle/core';
import { NavLink, Outlet, useLocation } from 'react-router';
import styled from 'styled-components';
import { useQuery } from '../base/useQuery.js';
import { useTitle } from '../base/useTitle.js';
import { Choice } from '../ui/Choice.js';
import { Field } from '../ui/Field.js';
import { Notice } from '../ui/Notice.js';
import { PanelTitle, Quiet } from '../ui/Panel.js';
import { Tabs } from '../ui/Tabs.js';
import { api } from '../wire/api.js';
import { refusalInWords } from '../wire/ask.js';
import type { Known } from './useKnown.js';

const Filters = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(9.5rem, 1fr));
  gap: 0.25rem 0.75rem;
  align-items: start;
`;

const TABS = [
  { to: 'offsets', label: 'Assembly offsets' },
  { to: 'marks', label: 'Grade marks' },
  { to: 'walls', label: 'Walls' },
  { to: 'use', label: 'Shells used' },
  { to: 'readers', label: 'People and instruments' },
  { to: 'trust', label: 'Are the ± honest' },
  { to: 'engines', label: 'Engines' },
] as const;

const DAY = /^\d{4}-\d\d-\d\d$/u;

/** A day that narrows, from the address; null for what is none. */
function dayOf(text: string | null): string | null {
  return text !== null && DAY.test(text) && !Number.isNaN(Date.parse(text)) ? text : null;
}

/** What the workshop knows from its engines, narrowed to some of them. */
export function KnownPage() {
  useTitle('What is known');
  const { search } = useLocation();
  const { data, error } = api.useKnownScopeQuery({}, { refetchOnMountOrArgChange: true });
  const [type, setType] = useQuery('type');
  const [series, setSeries] = useQuery('series');
  const [person, setPerson] = useQuery('person');
  const [from, setFrom] = useQuery('from');
  const [to, setTo] = useQuery('to');
  const [unitAsked, setUnit] = useQuery('unit');
  const unit: Unit = unitAsked === 'in' ? 'in' : 'mm';
  const [first, last] = [dayOf(from), dayOf(to)];
  const scope: KnownScope = {
    type: type ?? '',
    series: series ?? '',
    person: person ?? '',
    ...(first === null ? {} : { from: first }),
    ...(last === null ? {} : { to: last }),
  };
  // What an address asks for stands among the choices, also where no engine has it.
  const options = (all: string, asked: string | null, list: readonly string[] = []) => [
    { value: '', label: all },
    ...[...new Set([...list, ...(asked ? [asked] : [])])].map((value) => ({ value, label: value })),
  ];
  const dayFault = (text: string | null) =>
    text !== null && dayOf(text) === null ? 'Enter a date such as 2026-11-30, or leave it blank.' : null;
  const engines = data?.engines ?? 0;
  return (
    <>
      <PanelTitle as="h1">What is known</PanelTitle>
      {error && <Notice urgent>{refusalInWords(error)}</Notice>}
      {data && (
        <Quiet>
          From {engines} {engines === 1 ? 'engine' : 'engines'} whose selection was accepted
          {data.leftOut > 0 && `; ${data.leftOut} left out`}. It changes no selection.
          {data.samples > 0 && (
            <strong> {data.samples} of them are samples: remove them before you rely on this.</strong>
          )}
        </Quiet>
      )}
      <Filters>
        <Choice
          label="Engine type"
          value={type ?? ''}
          options={options('all', type, data?.types)}
          onChange={(value) => setType(value === '' ? null : value)}
        />
        <Choice
          label="Series"
          value={series ?? ''}
          options={options('all', series, data?.series)}
          onChange={(value) => setSeries(value === '' ? null : value)}
        />
        <Choice
          label="Worked on by"
          value={person ?? ''}
          options={options('anybody', person, data?.people)}
          onChange={(value) => setPerson(value === '' ? null : value)}
        />
        <Field
          label="From day"
          figure
          placeholder="2026-01-31"
          value={from ?? ''}
          onChange={(value) => setFrom(value === '' ? null : value)}
          fault={dayFault(from)}
        />
        <Field
          label="To day"
          figure
          placeholder="2026-12-31"
          value={to ?? ''}
          onChange={(value) => setTo(value === '' ? null : value)}
          fault={dayFault(to)}
        />
        <Choice
          label="Lengths in"
          value={unit}
          options={[
            { value: 'mm', label: 'mm' },
            { value: 'in', label: 'in' },
          ]}
          onChange={(value) => setUnit(value === 'mm' ? null : value)}
        />
      </Filters>
      <Tabs aria-label="What is known">
        {TABS.map(({ to: at, label }) => (
          <NavLink key={at} to={{ pathname: at, search }}>
            {label}
          </NavLink>
        ))}
      </Tabs>
      <Outlet context={{ scope, unit, isNarrowed: Object.values(scope).some((one) => one !== '') } satisfies Known} />
    </>
  );
}
