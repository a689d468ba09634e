import { useAppSelector } from '../base/store.js';
import { NOBODY } from './personSlice.js';

/** The name that whatever is done here is kept with. */
export function useBy(): string {
  return useAppSelector((state) => state.person.name) || NOBODY;
}
