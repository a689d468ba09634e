import { useEffect, useState } from 'react';
import { useAppSelector } from '../base/store.js';
import { Button } from '../ui/Button.js';
import { Notice } from '../ui/Notice.js';
import { takeNewVersion } from './keepPage.js';

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
    <Notice actions={!isWanted && <Button onPress={() => setWanted(true)}>Reload</Button>}>
      {version === 'waits' ? 'There is a new version of this page.' : 'Another tab runs a newer version.'}{' '}
      {count > 0
        ? `It loads once ${count === 1 ? 'one change is' : `${count} changes are`} sent or resolved.`
        : 'Unfinished entries are kept.'}
    </Notice>
  );
}
