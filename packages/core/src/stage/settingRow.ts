import type { z } from 'zod';
import { storedRecord } from '../document/documentPart.js';
import type { StoredDocument } from '../document/versioned.js';
import type { Nanometres } from '../measure/nanometres.js';

interface Option {
  readonly value: string;
  readonly label: string;
}

/** How a setting is set in a form, and what it is called there. `Engine` is what of an engine decides it. */
export type SettingField<Engine = never> = { readonly label: string } & (
  | { readonly kind: 'yes-no' }
  | {
      readonly kind: 'one-of';
      readonly options: readonly Option[] | ((engine: Engine) => readonly Option[]);
      /** How a value is named among the options, and back; left out: the value is the name. */
      readonly named?: { readonly by: (value: never) => string; readonly value: (name: string) => unknown };
    }
  /** A length of zero or more; above zero where `isSize` says so. What is `shown` stands there where the setting is left out. */
  | { readonly kind: 'length'; readonly isOptional: boolean; readonly isSize?: boolean; readonly shown?: Nanometres }
  | { readonly kind: 'number' | 'percent'; readonly most: number; readonly shown?: number }
  /** A temperature, or none. */
  | { readonly kind: 'celsius' }
);

/** One setting, and everything that follows from it: schema, default, form and history are made from this. */
export interface SettingRow<Schema extends z.ZodType = z.ZodType, Start = never, Engine = never> {
  readonly schema: Schema;
  /** The version of the document that brought it; left out: the one its part of the document came with. */
  readonly since?: number;
  /** What it is in a new job; left out: it is left out until somebody sets it. */
  readonly usual?: (start: Start) => z.output<Schema>;
  /** What it is called in the history of an engine. */
  readonly place: string;
  /** How it is set among those of its form; left out: it is set elsewhere. */
  readonly field?: SettingField<Engine>;
  /** True if an engine has it at all; left out: every one. */
  readonly isOf?: (engine: Engine) => boolean;
  /** What a fitter should know to set it. */
  readonly help?: string;
}

/** Rows by key. What a row is called, and how it is set, may be more than a setting by itself says. */
type Table = Readonly<Record<string, Omit<SettingRow, 'place' | 'field'>>>;

/** A schema per setting of a table. */
export function settingSchemas<Rows extends Table>(rows: Rows): { [Key in keyof Rows]: Rows[Key]['schema'] } {
  return Object.fromEntries(Object.entries(rows).map(([key, { schema }]) => [key, schema])) as {
    [Key in keyof Rows]: Rows[Key]['schema'];
  };
}

/** The settings of a new job. */
export function usualSettings<Rows extends Table, Start>(
  rows: Rows,
  start: Start,
): { [Key in keyof Rows]: z.output<Rows[Key]['schema']> } {
  return Object.fromEntries(
    Object.entries(rows).flatMap(([key, { usual }]) => (usual ? [[key, usual(start as never)]] : [])),
  ) as { [Key in keyof Rows]: z.output<Rows[Key]['schema']> };
}

/** The settings of a table that an engine has, in the order of their form, with their keys. */
export function ownSettings<Rows extends Table, Engine>(
  rows: Rows,
  engine: Engine,
): [keyof Rows & string, Rows[keyof Rows]][] {
  const all = Object.entries(rows) as [keyof Rows & string, Rows[keyof Rows]][];
  return all.filter(([, { isOf }]) => isOf?.(engine as never) !== false);
}

/** What each setting of a table is called in the history of an engine. */
export function settingPlaces(rows: Readonly<Record<string, SettingRow>>): Readonly<Record<string, string>> {
  return Object.fromEntries(Object.entries(rows).map(([key, { place }]) => [key, place]));
}

/**
 * By version of the document, what brings stored settings to it: those that came with it, as they are where nobody set them, under what is stored.
 * Such a setting asks no more of a job than a stored one tells.
 *
 * @param member of the document that holds them
 */
export function settingUpgrades(
  rows: Table,
  member: string,
): Readonly<Record<number, (document: StoredDocument) => StoredDocument>> {
  const versions = new Set(Object.values(rows).flatMap(({ since }) => since ?? []));
  return Object.fromEntries(
    [...versions].map((version) => [
      version,
      (document: StoredDocument) => {
        const came = Object.fromEntries(Object.entries(rows).filter(([, { since }]) => since === version));
        return { [member]: { ...usualSettings(came, document), ...storedRecord(document[member]) } };
      },
    ]),
  );
}
