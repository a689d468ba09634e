import type { EngineType, TypeView } from '@fettle/core';
import { useOutletContext } from 'react-router';
import type { TypeFaults } from './readType.js';
import type { TypeText } from './typeText.js';

/** The engine type that the views below its address work on. */
export interface OpenType {
  readonly id: string;
  /** What is in the library; null for a new one. */
  readonly view: TypeView | null;
  readonly text: TypeText;
  readonly change: (change: (text: TypeText) => TypeText) => void;
  /** The sheet as far as it can be read; null while its layout cannot. */
  readonly type: EngineType | null;
  readonly faults: TypeFaults;
}

export function useOpenType(): OpenType {
  return useOutletContext<OpenType>();
}
