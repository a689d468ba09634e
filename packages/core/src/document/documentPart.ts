import type { z } from 'zod';
import type { Unit } from '../measure/unit.js';
import type { StoredDocument } from './versioned.js';

/** What is known of a document when a part of it begins: a new one, or one that was stored before the part was there. */
export interface PartStart {
  readonly unit: Unit;
  /** True if its stations are selected from grade marks alone. */
  readonly isByMarks: boolean;
}

/**
 * A part of a versioned document that one piece of the work owns: its members, what they are at first, and how they were brought forward.
 *
 * `Start` is what its blank needs to know; a part that came with a later version knows no more than `PartStart`.
 */
export interface DocumentPart<Members extends z.ZodRawShape = z.ZodRawShape, Start = PartStart> {
  /** A schema per member. */
  readonly members: Members;
  /** The version of the document that it came with. */
  readonly since: number;
  /** What its members are where nothing was entered yet. */
  readonly blank: (start: Start) => z.output<z.ZodObject<Members>>;
  /** What a stored document needs to reach a later version, by that version: the members that are then another, and only those. */
  readonly upgrades?: Readonly<Record<number, (document: StoredDocument) => StoredDocument>>;
}

/** What the members of a part are in a document. */
export type PartValues<Part> = Part extends { readonly members: infer Members extends z.ZodRawShape }
  ? z.output<z.ZodObject<Members>>
  : never;

/** Describes a part; its members are told to the compiler one by one. */
export function documentPart<const Members extends z.ZodRawShape, Start = PartStart>(
  part: DocumentPart<Members, Start>,
): DocumentPart<Members, Start> {
  return part;
}

/** The names of the members that some parts own. */
export function membersOf(...parts: readonly { readonly members: object }[]): string[] {
  return parts.flatMap(({ members }) => Object.keys(members));
}

/** A stored value as an object: what is none has no members. */
export function storedRecord(value: unknown): StoredDocument {
  return typeof value === 'object' && value !== null && !Array.isArray(value) ? (value as StoredDocument) : {};
}
