import type { Missing } from '@fettle/core';
import { momentText } from '@fettle/core';
import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import { Button } from '../ui/Button.js';
import { Notice } from '../ui/Notice.js';
import { api } from '../wire/api.js';
import { tell } from '../wire/tell.js';
import { browserId, setTold, wasTold } from './browserId.js';

function Lost({ missing: { toldAt, changes, more } }: { readonly missing: Missing }) {
  return (
    <>
      <p>
        Another browser of yours was last heard of {momentText(toldAt)}. It had changes that have not reached the
        server:
      </p>
      <ul>
        {changes.map(({ id, engine, words }) => (
          <li key={id}>
            <Link to={`/engines/${engine}`}>{words}</Link>
          </li>
        ))}
        {more > 0 && <li>and {more} more</li>}
      </ul>
    </>
  );
}

/** What other browsers of a person have not sent: a browser whose data was cleared is another one from then on. */
export function MissingNotice({ person }: { readonly person: string }) {
  const [isDone, setDone] = useState(() => wasTold(person));
  const { data } = api.useListMissingQuery({ browser: browserId() }, { skip: isDone });
  const isNothing = data?.missing.length === 0;
  useEffect(() => {
    if (isNothing) setTold(person);
  }, [isNothing, person]);
  if (isDone || !data || data.missing.length === 0) return null;
  const remove = async () => {
    for (const { browser } of data.missing) await tell('forgetUnsent', { browser });
    setTold(person);
    setDone(true);
  };
  return (
    <Notice urgent actions={<Button onPress={() => void remove()}>Remove this note</Button>}>
      {data.missing.map((missing) => (
        <Lost key={missing.browser} missing={missing} />
      ))}
      <p>
        If that browser’s data was cleared, they are lost: type them again. If it is another device, open Fettle there.
      </p>
    </Notice>
  );
}
