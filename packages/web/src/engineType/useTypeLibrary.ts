import {
  cutText,
  type EngineType,
  newEngineType,
  readCodeSheet,
  readEngineType,
  type TypeSummary,
  usualLayout,
  withCodeSheet,
} from '@fettle/core';
import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { newId } from '../base/newId.js';
import { useSettled } from '../base/useSettled.js';
import { useBy } from '../person/useBy.js';
import { notedKeys, notedText } from '../ui/typingNotes.js';
import { api } from '../wire/api.js';
import { refusalInWords } from '../wire/ask.js';
import { tell } from '../wire/tell.js';

const DRAFT = 'fettle.draft.type.';

/** Types that are being typed on this device: new ones, and changes that were not saved. */
function typedHere(): { id: string; name: string }[] {
  return notedKeys(DRAFT).flatMap((key) => {
    const { text } = JSON.parse(notedText(key)!) as { text?: { name?: string } };
    return text === undefined ? [] : [{ id: key.slice(DRAFT.length), name: text.name?.trim() ?? '' }];
  });
}

/** After so long without a key the library is searched, ms. */
const SEARCH_AFTER_MS = 150;

/**
 * The engine type in a file: one that was exported, or a sheet of grade marks, which becomes a type of a usual layout.
 *
 * @returns the type, or what is wrong with the file
 */
export function typeInFile(name: string, content: string): EngineType | string {
  let json: unknown;
  try {
    json = JSON.parse(content);
  } catch (error) {
    return `${name} is not JSON (${(error as Error).message}). An engine type is a .json file.`;
  }
  const read = readEngineType(json);
  if (read.ok) return read.type;
  if ((json as { format?: unknown } | null)?.format === 'fettle.code-sheet/1') {
    const sheet = readCodeSheet(json);
    const usual = usualLayout(5, 4, 1, 3);
    if (sheet.ok && usual.ok) {
      return withCodeSheet(newEngineType(sheet.sheet.name, sheet.sheet.unit, usual.layout), sheet.sheet);
    }
  }
  const [first, ...others] = read.faults;
  const more = others.length > 0 ? ` (and ${others.length} more)` : '';
  return `${name} is not an engine type: ${first?.path || 'the file'}: ${first?.message}${more}.`;
}

export interface TypeLibrary {
  /** What is looked for. */
  readonly words: string;
  readonly setWords: (words: string) => void;
  /** True if the archive is shown in place of the library. */
  readonly isArchive: boolean;
  readonly setArchive: (isArchive: boolean) => void;
  /** The page of types that is shown; null while it has not come. */
  readonly types: readonly TypeSummary[] | null;
  /** Where that page begins, where the next one does, and how to go there. */
  readonly after: string | undefined;
  readonly goesOn: string | null;
  readonly goTo: (after: string | undefined) => void;
  readonly unsaved: readonly { readonly id: string; readonly name: string }[];
  readonly fault: string | null;
  readonly start: () => void;
  readonly open: (type: Pick<TypeSummary, 'id'>) => void;
  readonly duplicate: (id: string) => void;
  readonly archive: (id: string) => void;
  readonly bringIn: (chosen: File) => void;
}

/** The library of engine types: a page of it, and what can be done with its types. */
export function useTypeLibrary(): TypeLibrary {
  const navigate = useNavigate();
  const by = useBy();
  const [words, setWords] = useState('');
  const [isArchive, setArchive] = useState(false);
  const [actFault, setFault] = useState<string | null>(null);
  const sought = useSettled(words, SEARCH_AFTER_MS);
  // Other words, or the archive, begin at their first page.
  const [place, setPlace] = useState<{ readonly of: string; readonly after: string | undefined }>();
  const of = `${isArchive} ${sought}`;
  const after = place?.of === of ? place.after : undefined;
  const { data = null, error } = api.useListTypesQuery(
    { words: sought, archived: isArchive ? 'true' : 'false', ...(after === undefined ? {} : { after }) },
    { refetchOnMountOrArgChange: true },
  );
  const unsaved = useMemo(() => typedHere(), []);
  const act = (action: () => Promise<unknown>) => {
    setFault(null);
    void action().catch((error: unknown) => setFault(refusalInWords(error)));
  };
  const put = async (type: EngineType) => {
    const id = newId();
    await tell('putType', { id, body: { revision: 0, by, type } });
    await navigate(`/types/${id}/sheet`);
  };
  return {
    words,
    setWords,
    isArchive,
    setArchive,
    types: data?.types ?? null,
    after,
    goesOn: data?.goesOn ?? null,
    goTo: (next) => setPlace({ of, after: next }),
    unsaved,
    fault: actFault ?? (error ? refusalInWords(error) : null),
    start: () => void navigate(`/types/${newId()}/sheet`, { state: { isNew: true } }),
    open: ({ id }) => void navigate(`/types/${id}/sheet`),
    duplicate: (id) =>
      act(async () => {
        const { type } = await tell('getType', { id });
        await put({ ...type, name: cutText(`${type.name} (copy)`, 80) });
      }),
    archive: (id) => act(() => tell('archiveType', { id, body: { by, archived: !isArchive } })),
    bringIn: (chosen) =>
      act(async () => {
        const type = typeInFile(chosen.name, await chosen.text());
        if (typeof type === 'string') setFault(type);
        else await put(type);
      }),
  };
}
