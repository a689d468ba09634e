import {
  cutText,
  newEngineType,
  readCodeSheet,
  readEngineType,
  type TypeSummary,
  usualLayout,
  withCodeSheet,
} from '@fettle/core';
import { formatDistanceToNow } from 'date-fns';
import { Archive, ArchiveRestore, Copy, Plus, Upload } from 'lucide-react';
import { useCallback, useEffect, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import styled from 'styled-components';
import { newId } from '../app/newId.js';
import { useAppSelector } from '../app/store.js';
import { Button } from '../look/Button.js';
import { FileButton } from '../look/FileButton.js';
import { Notice } from '../look/Notice.js';
import { Panel, PanelTitle, Quiet, Row, Table } from '../look/Panel.js';
import { SearchField } from '../look/SearchField.js';
import { NOBODY } from '../person/personSlice.js';
import { archiveType, fetchType, fetchTypes, putType } from '../saving/api.js';
import { refusalInWords } from '../saving/refusalInWords.js';

const Wide = styled.div`
  overflow-x: auto;
  td { vertical-align: top; }
  td.name { font-size: var(--size-figure); font-weight: 700; overflow-wrap: anywhere; min-width: 12rem; }
  td.name p { font-weight: 400; display: -webkit-box; -webkit-box-orient: vertical; -webkit-line-clamp: 2; overflow: hidden; }
  td.short { white-space: nowrap; }
  td.acts { white-space: nowrap; text-align: right; }
`;

const CODED = { main: 'mains', rod: 'rods' } as const;

/** The library of engine types: found by anything that stands on their sheets, started, copied, archived, brought in from a file. */
export function TypeList() {
  const navigate = useNavigate();
  const by = useAppSelector((state) => state.person.name) || NOBODY;
  const [words, setWords] = useState('');
  const [isArchive, setArchive] = useState(false);
  const [types, setTypes] = useState<readonly TypeSummary[] | null>(null);
  const [lookFault, setLookFault] = useState<string | null>(null);
  const [actFault, setFault] = useState<string | null>(null);
  const look = useCallback(async () => {
    try {
      setTypes(await fetchTypes(words, isArchive));
      setLookFault(null);
    } catch (error) {
      setLookFault(refusalInWords(error));
    }
  }, [words, isArchive]);
  useEffect(() => {
    const timer = setTimeout(() => void look(), 150);
    return () => clearTimeout(timer);
  }, [look]);
  const act = (action: () => Promise<unknown>) => {
    setFault(null);
    void action()
      .then(look)
      .catch((error: unknown) => setFault(refusalInWords(error)));
  };

  const start = () => void navigate(`/types/${newId()}/sheet`, { state: { isNew: true } });
  const duplicate = (id: string) =>
    act(async () => {
      const { type } = await fetchType(id);
      const copy = newId();
      await putType(copy, 0, by, { ...type, name: cutText(`${type.name} (copy)`, 80) });
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
        setFault(`${chosen.name} is no engine type: ${first?.path || 'the file'}: ${first?.message}${more}.`);
        return;
      }
      const id = newId();
      await putType(id, 0, by, type);
      await navigate(`/types/${id}/sheet`);
    });

  return (
    <>
      <Row style={{ justifyContent: 'space-between' }}>
        <PanelTitle as="h1">Engine types</PanelTitle>
        <Row>
          <FileButton label="Engine type file" accept=".json,application/json" onChoose={bringIn}>
            <Upload aria-hidden size={20} />
            Bring in a file
          </FileButton>
          <Button $kind="main" onPress={start}>
            <Plus aria-hidden size={20} />
            New engine type
          </Button>
        </Row>
      </Row>
      {(actFault ?? lookFault) && <Notice urgent>{actFault ?? lookFault}</Notice>}
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
          <p aria-busy>Looking into the library …</p>
        ) : types.length === 0 ? (
          <p>
            {words.trim() !== ''
              ? `No ${isArchive ? 'archived ' : ''}sheet holds “${words.trim()}”.`
              : isArchive
                ? 'Nothing is archived.'
                : 'No engine types yet. Enter a data sheet once; every engine of that type starts from it.'}
          </p>
        ) : (
          <Wide>
            <Table>
              <thead>
                <tr>
                  <th>Engine type</th>
                  <th>Layout</th>
                  <th>Code tables</th>
                  <th>Revision</th>
                  <th>
                    <span className="visually-hidden">What can be done</span>
                  </th>
                </tr>
              </thead>
              <tbody>
                {types.map((one) => (
                  <tr key={one.id}>
                    <td className="name">
                      <Link to={`/types/${one.id}/sheet`}>{one.name}</Link>
                      {one.note !== '' && <Quiet>{one.note}</Quiet>}
                      {one.found.map((line) => (
                        <Quiet key={line}>{line}</Quiet>
                      ))}
                    </td>
                    <td className="short">
                      {one.mains} mains, {one.rods} rods
                      <Quiet>{one.unit === 'mm' ? 'millimetres' : 'inches'}</Quiet>
                    </td>
                    <td className="short">
                      {one.coded.length === 0 ? 'none' : one.coded.map((family) => CODED[family]).join(', ')}
                    </td>
                    <td className="short">
                      {one.revision}
                      <Quiet>
                        {formatDistanceToNow(new Date(one.updatedAt), { addSuffix: true })}, {one.updatedBy}
                      </Quiet>
                    </td>
                    <td className="acts">
                      <Button $kind="quiet" aria-label={`Duplicate ${one.name}`} onPress={() => duplicate(one.id)}>
                        <Copy aria-hidden size={18} />
                        Duplicate
                      </Button>
                      <Button
                        $kind="quiet"
                        aria-label={`${isArchive ? 'Bring back' : 'Archive'} ${one.name}`}
                        onPress={() => act(() => archiveType(one.id, by, !isArchive))}
                      >
                        {isArchive ? <ArchiveRestore aria-hidden size={18} /> : <Archive aria-hidden size={18} />}
                        {isArchive ? 'Bring back' : 'Archive'}
                      </Button>
                    </td>
                  </tr>
                ))}
              </tbody>
            </Table>
          </Wide>
        )}
      </Panel>
    </>
  );
}
