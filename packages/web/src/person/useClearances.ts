import { inThousandths, type ShownUnit, type Unit } from '@fettle/core';
import { useMemo } from 'react';
import { useAppSelector } from '../base/store.js';

/** How clearances are shown to who is at this device. */
export interface Clearances {
  /** What their figures are in. */
  readonly shown: ShownUnit;
  /** A sentence of the core, its small lengths written in the same. */
  readonly said: (text: string) => string;
}

const AS_IT_IS = (text: string) => text;

/** True if the person at this device reads the clearances of inch engines in thousandths. */
export function useThousandths(): boolean {
  return useAppSelector(({ appearance, person }) => appearance.inThousandths.includes(person.name));
}

/** @param unit that of the engine; only inches are ever shown in another */
export function useClearances(unit: Unit): Clearances {
  const isThou = useThousandths() && unit === 'in';
  return useMemo(
    () => (isThou ? { shown: 'thou', said: inThousandths } : { shown: unit, said: AS_IT_IS }),
    [isThou, unit],
  );
}
