import { useEffect, useState } from 'react';
import { Button } from '../look/Button.js';
import { Notice } from '../look/Notice.js';
import { takeNewVersion } from './keepPage.js';
import { useAppSelector } from './store.js';

/** A new version of the page asks before it comes, and waits until everything that was typed is sent. */
export function VersionNotice() {
  const version = useAppSelector((state) => state.version);
  const count = useAppSelector(({ saving }) => saving.parcels.length + saving.clashes.length + saving.refusals.length);
  const [isWanted, setWanted] = useState(false);
  useEffect(() => {
    if (isWanted && count === 0) takeNewVersion();
  }, [isWanted, count]);
  if (version === 'none') return null;
  return (
    <Notice actions={!isWanted && <Button onPress={() => setWanted(true)}>Load it now</Button>}>
      {version === 'waits'
        ? 'There is a new version of this page.'
        : 'Another tab has gone over to a new version of this page.'}{' '}
      {count > 0
        ? `It is loaded ${isWanted ? '' : 'at the earliest '}when what was typed is sent or decided (${count} left).`
        : 'What is half typed in a box stays in its box.'}
    </Notice>
  );
}
