import { type BehindQuery, type KnownEngine, mayDo, momentText } from '@fettle/core';
import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { useAppSelector } from '../base/store.js';
import { useSetQuery } from '../base/useQuery.js';
import { useBy } from '../person/useBy.js';
import { Button } from '../ui/Button.js';
import { Field } from '../ui/Field.js';
import { Notice } from '../ui/Notice.js';
import { Panel, PanelTitle, Quiet, Row } from '../ui/Panel.js';
import { Sample } from '../ui/Sample.js';
import { api } from '../wire/api.js';
import { refusalInWords } from '../wire/ask.js';
import { BEHIND_KEYS } from './BehindLink.js';
import { KnownNothing } from './KnownNothing.js';
import { KnownTable } from './KnownTable.js';
import { useKnown } from './useKnown.js';

/** Engines of a page of the list. */
const PAGE = 200;

/** Leaves an engine out with a reason, or counts it again. */
function LeaveOut({ engine }: { readonly engine: KnownEngine }) {
  const by = useBy();
  const [leaveOut, { error, isLoading }] = api.useLeaveOutMutation();
  const [reason, setReason] = useState<string | null>(null);
  const { id, name, leftOut } = engine;
  if (leftOut) {
    return (
      <Button
        aria-label={`Count ${name} again`}
        isDisabled={isLoading}
        onPress={() => void leaveOut({ id, body: { by, reason: null } })}
      >
        Count again
      </Button>
    );
  }
  if (reason === null) {
    return (
      <Button $kind="quiet" aria-label={`Leave ${name} out`} onPress={() => setReason('')}>
        Leave out
      </Button>
    );
  }
  return (
    <Row style={{ alignItems: 'end' }}>
      <Field
        label="Reason"
        value={reason}
        maxLength={200}
        autoFocus
        onChange={setReason}
        fault={error ? refusalInWords(error) : null}
      />
      <Button
        $kind="primary"
        isDisabled={isLoading || reason.trim() === ''}
        onPress={() => void leaveOut({ id, body: { by, reason: reason.trim() } })}
      >
        Leave out
      </Button>
      <Button onPress={() => setReason(null)}>Back</Button>
    </Row>
  );
}

/** Which figure it is that only the engines behind are listed of, in words. */
function behindWords(asked: BehindQuery, series: string): string {
  const { what, grade = '', half = '', mark = '' } = asked;
  if (what === 'mark') return `mark ${mark}`;
  if (what === 'instrument') return 'one instrument';
  if (what === 'check') return 'the ± check';
  return `${what === 'wall' ? 'walls of' : 'use of'} ${[series, grade].filter(Boolean).join(' ')}, ${half}`;
}

/** The engines behind what is known, page by page; each can be left out with a reason. */
export function EnginesKnown() {
  const { scope } = useKnown();
  const [query] = useSearchParams();
  const setQuery = useSetQuery();
  // Whatever an address says is asked for; the server says what is wrong with it.
  const asked = Object.fromEntries(
    BEHIND_KEYS.flatMap((key) => (query.get(key) ? [[key, query.get(key)!]] : [])),
  ) as BehindQuery;
  const mayChange = useAppSelector(
    ({ access }) => access.isOn !== true || mayDo(access.session?.person?.role ?? null, 'bench'),
  );
  const [pages, setPages] = useState<readonly string[]>([]);
  const after = pages.at(-1);
  const { currentData: data, error } = api.useKnownEnginesQuery(
    { ...scope, ...asked, most: PAGE, ...(after === undefined ? {} : { after }) },
    { refetchOnMountOrArgChange: true },
  );
  if (error) return <Notice urgent>{refusalInWords(error)}</Notice>;
  if (!data) return <p aria-busy>Loading …</p>;
  return (
    <Panel aria-label="Engines counted">
      <PanelTitle>Engines counted</PanelTitle>
      <Quiet>
        Every engine whose selection was accepted. Leave out an engine whose figures you do not trust, and give the
        reason.
      </Quiet>
      {asked.what !== undefined && (
        <Row>
          <p style={{ flex: '1 1 20rem' }}>
            <strong>Only for {behindWords(asked, scope.series ?? '')}.</strong>
          </p>
          <Button onPress={() => setQuery(Object.fromEntries(BEHIND_KEYS.map((key) => [key, null])))}>Show all</Button>
        </Row>
      )}
      {data.engines.length === 0 ? (
        <KnownNothing>No engines.</KnownNothing>
      ) : (
        <KnownTable
          label="Engines behind what is known"
          file="engines-known"
          items={data.engines}
          keyOf={({ id }) => id}
          columns={[
            {
              head: 'Engine',
              text: ({ name }) => name,
              cell: ({ id, name }) => (
                <>
                  <Link to={`/engines/${id}/sheet`}>{name}</Link> <Sample id={id} />
                </>
              ),
            },
            { head: 'Type', text: ({ type }) => type },
            { head: 'Accepted', text: ({ at }) => at.slice(0, 10), cell: ({ at }) => momentText(at, 'day') },
            {
              head: 'Signed',
              text: ({ signed }) => (signed === null ? 'not signed' : `sheet ${signed}`),
              sortBy: ({ signed }) => signed,
            },
            {
              head: 'Left out',
              text: ({ leftOut }) => (leftOut ? `${leftOut.reason} (${leftOut.by}, ${leftOut.at.slice(0, 10)})` : ''),
            },
            ...(mayChange
              ? [
                  {
                    head: 'Counts',
                    text: ({ leftOut }: KnownEngine) => (leftOut ? 'no' : 'yes'),
                    cell: (engine: KnownEngine) => <LeaveOut engine={engine} />,
                  },
                ]
              : []),
          ]}
        />
      )}
      <Row style={{ marginTop: '0.5rem' }}>
        {pages.length > 0 && <Button onPress={() => setPages(pages.slice(0, -1))}>Newer</Button>}
        {data.goesOn !== null && <Button onPress={() => setPages([...pages, data.goesOn!])}>Older</Button>}
      </Row>
    </Panel>
  );
}
