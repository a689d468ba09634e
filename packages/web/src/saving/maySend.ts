import type { AccessState } from '../person/accessSlice.js';
import { type Parcel, typedBy } from './outbox.js';

/** True if it may be sent now: where one signs in, only what who is signed in has typed. */
export function maySend({ isOn, session }: AccessState, parcel: Parcel): boolean {
  return !isOn || (session?.person != null && session.token !== '' && typedBy(parcel) === session.person.name);
}
