import { Archive, Plus, Upload } from 'lucide-react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { useTitle } from '../base/useTitle.js';
import { Button } from '../ui/Button.js';
import { DataTable } from '../ui/DataTable.js';
import { FileButton } from '../ui/FileButton.js';
import { Notice } from '../ui/Notice.js';
import { Pager } from '../ui/Pager.js';
import { Panel, PanelTitle, Row } from '../ui/Panel.js';
import { SearchField } from '../ui/SearchField.js';
import { typeColumns } from './typeColumns.js';
import { type TypeLibrary, useTypeLibrary } from './useTypeLibrary.js';

const Wide = styled.div`
  overflow-x: auto;
  td { vertical-align: top; }
  td.name { font-size: var(--size-figure); font-weight: 700; overflow-wrap: anywhere; min-width: 12rem; }
  td.name p { font-weight: 400; display: -webkit-box; -webkit-box-orient: vertical; -webkit-line-clamp: 2; overflow: hidden; }
  td.short { white-space: nowrap; }
  td.acts { white-space: nowrap; text-align: right; }
`;

/** Types that were typed on this device and never saved. */
function NotSaved({ unsaved }: Pick<TypeLibrary, 'unsaved'>) {
  if (unsaved.length === 0) return null;
  return (
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
  );
}

/** That nothing is there to list, and why. */
function NoTypes({ words, isArchive }: Pick<TypeLibrary, 'words' | 'isArchive'>) {
  if (words.trim() !== '') {
    return (
      <p style={{ marginTop: '0.6rem' }}>
        No {isArchive ? 'archived ' : ''}sheet mentions “{words.trim()}”.
      </p>
    );
  }
  return (
    <p style={{ marginTop: '0.6rem' }}>
      {isArchive
        ? 'No archived types.'
        : 'No engine types yet. Enter a data sheet once; every engine of that type starts from it.'}
    </p>
  );
}

/** The library of engine types: found by anything that stands on their sheets, started, copied, archived, brought in from a file. */
export function TypeList() {
  useTitle('Engine types');
  const library = useTypeLibrary();
  const { words, setWords, isArchive, setArchive, types, fault, unsaved, after, goesOn, goTo } = library;
  const columns = typeColumns({ isArchive, onDuplicate: library.duplicate, onArchive: library.archive });
  return (
    <>
      <Row style={{ justifyContent: 'space-between' }}>
        <PanelTitle as="h1">Engine types</PanelTitle>
        <Row>
          <FileButton label="Engine type file" accept=".json,application/json" onChoose={library.bringIn}>
            <Upload aria-hidden size={20} />
            Import
          </FileButton>
          <Button $kind="primary" onPress={library.start}>
            <Plus aria-hidden size={20} />
            New engine type
          </Button>
        </Row>
      </Row>
      {fault && <Notice urgent>{fault}</Notice>}
      <NotSaved unsaved={unsaved} />
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
          <NoTypes words={words} isArchive={isArchive} />
        ) : (
          <Wide>
            <DataTable
              label="Engine types"
              what="types"
              items={types}
              columns={columns}
              keyOf={({ id }) => id}
              onOpen={library.open}
            />
          </Wide>
        )}
        {types && (
          <Pager after={after} goesOn={goesOn} onGo={goTo} more="Show the next types" back="Back to the first" />
        )}
      </Panel>
    </>
  );
}
