import { mayDo } from '@fettle/core';
import { useAppDispatch, useAppSelector } from '../base/store.js';
import { typedBy } from '../saving/outbox.js';
import { parcelsTaken } from '../saving/savingSlice.js';
import { Button } from '../ui/Button.js';
import { Notice } from '../ui/Notice.js';

/** What somebody else typed here and could not send waits for them; and who may only look is told so before they type. */
export function HeldBack() {
  const dispatch = useAppDispatch();
  const person = useAppSelector((state) => (state.access.isOn ? (state.access.session?.person ?? null) : null));
  const parcels = useAppSelector((state) => state.saving.parcels);
  if (!person) return null;
  const others = parcels.filter((parcel) => typedBy(parcel) !== person.name);
  const names = [...new Set(others.map(typedBy))];
  const mayType = mayDo(person.role, 'bench');
  return (
    <>
      {others.length > 0 && (
        <Notice
          actions={
            mayType && (
              <Button onPress={() => dispatch(parcelsTaken(person.name))}>
                Send {others.length === 1 ? 'it' : 'them'} as {person.name}
              </Button>
            )
          }
        >
          {others.length} {others.length === 1 ? 'change' : 'changes'} typed here by {names.join(' and ')}{' '}
          {others.length === 1 ? 'waits' : 'wait'} until {names.length === 1 ? 'they sign' : 'each of them signs'} in on
          this device.
        </Notice>
      )}
      {!mayType && (
        <Notice>
          {person.role === 'stores'
            ? 'Signed in as stores: you look after stock. Entries at an engine are not saved.'
            : 'Signed in as viewer: you see everything. Entries are not saved.'}
        </Notice>
      )}
    </>
  );
}
