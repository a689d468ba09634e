import type { TypeSummary } from '@fettle/core';
import { cutText, newEngineType, readCodeSheet, readEngineType, usualLayout, withCodeSheet } from '@fettle/core';
import { Archive, Plus, Upload } from 'lucide-react';
import { useMemo, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import styled from 'styled-components';
import { newId } from '../base/newId.js';
import { useSettled } from '../base/useSettled.js';
import { useTitle } from '../base/useTitle.js';
import { useBy } from '../person/useBy.js';
import { Button } from '../ui/Button.js';
import { DataTable } from '../ui/DataTable.js';
import { FileButton } from '../ui/FileButton.js';
import { Notice } from '../ui/Notice.js';
import { Pager } from '../ui/Pager.js';
import { Panel, PanelTitle, Row } from '../ui/Panel.js';
import { SearchField } from '../ui/SearchField.js';
import { notedKeys, notedText } from '../ui/typingNotes.js';
import { api } from '../wire/api.js';
import { refusalInWords } from '../wire/ask.js';
import { tell } from '../wire/tell.js';
import { typeColumns } from './typeColumns.js';

const Wide = styled.div`
  overflow-x: auto;
  td { vertical-align: top; }
  td.name { font-size: var(--size-figure); font-weight: 700; overflow-wrap: anywhere; min-width: 12rem; }
  td.name p { font-weight: 400; display: -webkit-box; -webkit-box-orient: vertical; -webkit-line-clamp: 2; overflow: hidden; }
  td.short { white-space: nowrap; }
  td.acts { white-space: nowrap; text-align: right; }
`;

const DRAFT = 'fettle.draft.type.';

/** Types that are being typed on this device: new ones, and changes that were not saved. */
function typedHere(): { id: string; name: string }[] {
  return notedKeys(DRAFT).flatMap((key) => {
    const { text } = JSON.parse(notedText(key)!) as { text?: { name?: string } };
    return text === undefined ? [] : [{ id: key.slice(DRAFT.length), name: text.name?.trim() ?? '' }];
  });
}

/** The library of engine types: found by anything that stands on their sheets, started, copied, archived, brought in from a file. */
export function TypeList() {
  useTitle('Engine types');
  const navigate = useNavigate();
  const by = useBy();
  const [words, setWords] = useState('');
  const [isArchive, setArchive] = useState(false);
  const [actFault, setFault] = useState<string | null>(null);
  const sought = useSettled(words, 150);
  // Other words, or the archive, begin at their first page.
  const [place, setPlace] = useState<{ readonly of: string; readonly after: string | undefined }>();
  const of = `${isArchive} ${sought}`;
  const after = place?.of === of ? place.after : undefined;
  const { data = null, error } = api.useListTypesQuery(
    { words: sought, archived: isArchive ? 'true' : 'false', ...(after === undefined ? {} : { after }) },
    { refetchOnMountOrArgChange: true },
  );
  const types = data?.types ?? null;
  const unsaved = useMemo(() => typedHere(), []);
  const lookFault = error ? refusalInWords(error) : null;
  const act = (action: () => Promise<unknown>) => {
    setFault(null);
    void action().catch((error: unknown) => setFault(refusalInWords(error)));
  };

  const start = () => void navigate(`/types/${newId()}/sheet`, { state: { isNew: true } });
  const duplicate = (id: string) =>
    act(async () => {
      const { type } = await tell('getType', { id });
      const copy = newId();
      await tell('putType', {
        id: copy,
        body: { revision: 0, by, type: { ...type, name: cutText(`${type.name} (copy)`, 80) } },
      });
      await navigate(`/types/${copy}/sheet`);
    });
  const bringIn = (chosen: File) =>
    act(async () => {
      let json: unknown;
      try {
        json = JSON.parse(await chosen.text());
      } catch (error) {
        setFault(`${chosen.name} is not JSON (${(error as Error).message}). An engine type is a .json file.`);
        return;
      }
      const read = readEngineType(json);
      let type = read.ok ? read.type : null;
      if (!read.ok && (json as { format?: unknown } | null)?.format === 'fettle.code-sheet/1') {
        const sheet = readCodeSheet(json);
        const usual = usualLayout(5, 4, 1, 3);
        if (sheet.ok && usual.ok) {
          type = withCodeSheet(newEngineType(sheet.sheet.name, sheet.sheet.unit, usual.layout), sheet.sheet);
        }
      }
      if (!type) {
        const faults = read.ok ? [] : read.faults;
        const [first] = faults;
        const more = faults.length > 1 ? ` (and ${faults.length - 1} more)` : '';
        setFault(`${chosen.name} is not an engine type: ${first?.path || 'the file'}: ${first?.message}${more}.`);
        return;
      }
      const id = newId();
      await tell('putType', { id, body: { revision: 0, by, type } });
      await navigate(`/types/${id}/sheet`);
    });

  const open = ({ id }: TypeSummary) => void navigate(`/types/${id}/sheet`);
  const archive = (id: string) => act(() => tell('archiveType', { id, body: { by, archived: !isArchive } }));
  const columns = typeColumns({ isArchive, onDuplicate: duplicate, onArchive: archive });
  return (
    <>
      <Row style={{ justifyContent: 'space-between' }}>
        <PanelTitle as="h1">Engine types</PanelTitle>
        <Row>
          <FileButton label="Engine type file" accept=".json,application/json" onChoose={bringIn}>
            <Upload aria-hidden size={20} />
            Import
          </FileButton>
          <Button $kind="primary" onPress={start}>
            <Plus aria-hidden size={20} />
            New engine type
          </Button>
        </Row>
      </Row>
      {(actFault ?? lookFault) && <Notice urgent>{actFault ?? lookFault}</Notice>}
      {unsaved.length > 0 && (
        <Notice>
          <p>Typed on this device and not in the library yet:</p>
          <ul aria-label="Not saved yet">
            {unsaved.map(({ id, name }) => (
              <li key={id}>
                <Link to={`/types/${id}/sheet`} state={{ isNew: true }}>
                  {name === '' ? 'without a name yet' : name}
                </Link>
              </li>
            ))}
          </ul>
        </Notice>
      )}
      <Panel>
        <Row>
          <SearchField
            label="Search the library"
            placeholder="name, grade, source, size: anything on a sheet"
            value={words}
            onChange={setWords}
          />
          <Button aria-pressed={isArchive} onPress={() => setArchive(!isArchive)}>
            <Archive aria-hidden size={20} />
            {isArchive ? 'Back to the library' : 'Show the archive'}
          </Button>
        </Row>
        {types === null ? (
          <p aria-busy>Loading library …</p>
        ) : types.length === 0 ? (
          <p style={{ marginTop: '0.6rem' }}>
            {words.trim() !== ''
              ? `No ${isArchive ? 'archived ' : ''}sheet mentions “${words.trim()}”.`
              : isArchive
                ? 'No archived types.'
                : 'No engine types yet. Enter a data sheet once; every engine of that type starts from it.'}
          </p>
        ) : (
          <Wide>
            <DataTable
              label="Engine types"
              what="types"
              items={types}
              columns={columns}
              keyOf={({ id }) => id}
              onOpen={open}
            />
          </Wide>
        )}
        {data && (
          <Pager
            after={after}
            goesOn={data.goesOn}
            onGo={(next) => setPlace({ of, after: next })}
            more="Show the next types"
            back="Back to the first"
          />
        )}
      </Panel>
    </>
  );
}
