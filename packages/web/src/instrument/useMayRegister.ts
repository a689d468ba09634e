import { mayDo } from '@fettle/core';
import { useAppSelector } from '../base/store.js';

/** True if whoever is at this device may register, calibrate and check instruments. */
export function useMayRegister(): boolean {
  return useAppSelector(
    ({ access }) => access.isOn !== true || mayDo(access.session?.person?.role ?? null, 'instruments'),
  );
}
