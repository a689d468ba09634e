import { type EngineType, eachFamily, FAMILY_TABLE, newEngineType, type TypeView, usualLayout } from '@fettle/core';
import { Plus, Save, Undo2 } from 'lucide-react';
import { useMemo, useState } from 'react';
import { Link, NavLink, Outlet, useLocation, useNavigate, useOutletContext, useParams } from 'react-router';
import { useUnsaved } from '../base/unsaved.js';
import { useTitle } from '../base/useTitle.js';
import { usePast } from '../limits/usePast.js';
import { useBy } from '../person/useBy.js';
import { useDraft } from '../typing/useDraft.js';
import { Button } from '../ui/Button.js';
import { Notice } from '../ui/Notice.js';
import { Panel, PanelTitle, Quiet, Row } from '../ui/Panel.js';
import { Tabs } from '../ui/Tabs.js';
import { api } from '../wire/api.js';
import { isAskFault, refusalInWords } from '../wire/ask.js';
import { tell } from '../wire/tell.js';
import { readType, type TypeFaults } from './readType.js';
import { completed, type TypeText, textOfType } from './typeText.js';

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

/** What is being typed, and the revision that it was typed on; 0 for a new type. */
interface Draft {
  readonly base: number;
  readonly text: TypeText;
}

/** What a new sheet starts from: the most usual layout, to be typed over. */
function blankText(): TypeText {
  const usual = usualLayout(5, 4, 1, 3);
  if (!usual.ok) throw new Error(usual.message);
  return { ...textOfType(newEngineType('?', 'mm', usual.layout)), name: '', throws: '' };
}

const TABS = [
  { to: 'sheet', label: 'Data sheet' },
  { to: 'mains', label: 'Grade marks of the mains' },
  { to: 'rods', label: 'Grade marks of the rods' },
  { to: 'order', label: 'What to order' },
  { to: 'compare', label: 'Revisions' },
] as const;

/** One engine type: typed in as from a book, kept on this device until it is saved as the next revision. */
export function TypePage() {
  const { id = '' } = useParams();
  const { state, pathname } = useLocation();
  const navigate = useNavigate();
  const by = useBy();
  const isNew = (state as { isNew?: boolean } | null)?.isNew === true;
  const {
    currentData: view = null,
    error,
    isFetching,
    refetch,
  } = api.useGetTypeQuery({ id }, { refetchOnMountOrArgChange: true });
  const [saveFault, setSaveFault] = useState<string | null>(null);
  // A new type is not in the library yet: its draft is all there is.
  const isNowhere = isAskFault(error) && error.kind === 'refused' && error.problem.status === 404;
  const fault = saveFault ?? (error && !isNowhere ? refusalInWords(error) : null);
  // Asked for again, because others changed something, what is nowhere yet stays a new type: its form never goes from under the hand.
  const isLoaded = view !== null || isNowhere || !isFetching;
  const [isTried, setTried] = useState(false);
  const [draft, setDraft, clearDraft] = useDraft<Draft>(`type.${id}`);
  useUnsaved(draft === null ? null : 'Engine type not saved yet');
  const past = usePast<Draft>();
  const stored = useMemo(() => (view ? textOfType(view.type) : null), [view]);
  const blank = useMemo(blankText, []);
  const text = draft ? completed(draft.text, stored ?? blank) : (stored ?? (isLoaded && isNew ? blank : null));
  const read = useMemo(() => text && readType(text), [text]);
  const tab = TABS.find(({ to }) => pathname.endsWith(`/${to}`));
  useTitle(text?.name.trim() || 'Engine type', tab?.label ?? '');
  if (!text || !read) {
    return fault !== null || isLoaded ? (
      <Panel role="alert">
        {fault ?? 'Engine type not found.'} <Link to="/types">Back to the library</Link>
      </Panel>
    ) : (
      <Panel aria-busy>Loading engine type …</Panel>
    );
  }
  const { type, faults } = read;
  // The revision that was typed on: a later one of somebody else is never overwritten unseen.
  const base = draft?.base ?? view?.revision ?? 0;
  const isBehind = view !== null && base < view.revision;
  const count = Object.keys(faults).length;
  const save = async () => {
    setTried(true);
    if (!type || count > 0) return;
    try {
      const { revision } = await tell('putType', { id, body: { revision: base, by, type } });
      await refetch();
      // What was typed while it was being saved is a change of what is saved now.
      if (draft && !clearDraft(draft)) setDraft((now) => ({ ...(now ?? draft), base: revision }));
      setTried(false);
      setSaveFault(null);
    } catch (caught) {
      if (isAskFault(caught) && caught.kind === 'refused' && caught.problem.status === 409) await refetch();
      else setSaveFault(refusalInWords(caught));
    }
  };
  const open: OpenType = {
    id,
    view,
    text,
    change: (change) => {
      past.keep({ base, text });
      setDraft({ base, text: change(text) });
    },
    type,
    faults,
  };
  const drop = () => {
    past.keep({ base, text }, true);
    clearDraft();
  };
  return (
    <>
      <Row style={{ justifyContent: 'space-between' }}>
        <PanelTitle as="h1">{text.name.trim() === '' ? 'New engine type' : text.name}</PanelTitle>
        <Row>
          <Quiet role="status">
            {draft === null
              ? view
                ? `Revision ${view.revision}, saved by ${view.updatedBy}`
                : 'Not in the library yet'
              : 'Changed on this device, not saved yet'}
          </Quiet>
          <Button
            isDisabled={past.isEmpty}
            onPress={() => {
              const before = past.takeBack();
              if (before) setDraft(before);
            }}
          >
            <Undo2 aria-hidden size={20} />
            Undo
          </Button>
          {view && draft === null && (
            <Button onPress={() => void navigate(`/new?type=${id}`)}>
              <Plus aria-hidden size={20} />
              New engine of this type
            </Button>
          )}
          {draft !== null && view && <Button onPress={drop}>Discard changes</Button>}
          <Button $kind="primary" isDisabled={draft === null || isBehind} onPress={() => void save()}>
            <Save aria-hidden size={20} />
            {view ? `Save as revision ${base + 1}` : 'Save to library'}
          </Button>
        </Row>
      </Row>
      {fault && <Notice urgent>{fault} Your entries are saved on this device.</Notice>}
      {isBehind && (
        <Notice
          urgent
          actions={
            <>
              <Button onPress={drop}>Use theirs, discard mine</Button>
              <Button onPress={() => setDraft({ base: view.revision, text })}>Overwrite with mine</Button>
            </>
          }
        >
          {view.updatedBy} saved revision {view.revision} after you started from revision {base}. Compare under{' '}
          <Link to={`/types/${id}/compare`}>Revisions</Link>; nothing is overwritten until you choose.
        </Notice>
      )}
      {isTried && count > 0 && (
        <Notice urgent>
          Not saved. Check {count === 1 ? 'one field' : `${count} fields`}: {placesInWords(faults)}.
        </Notice>
      )}
      <Tabs aria-label="Parts of the data sheet">
        {TABS.map(({ to, label }) => (
          <NavLink key={to} to={`/types/${id}/${to}`} state={state} className={tab?.to === to ? 'active' : ''}>
            {label}
          </NavLink>
        ))}
      </Tabs>
      <Outlet context={open} />
    </>
  );
}

const PLACES: Readonly<Record<string, string>> = {
  ...eachFamily((family) => `Grade marks of the ${FAMILY_TABLE[family].words}`),
};

/** Where faults stand, by tab, and the first of them. */
function placesInWords(faults: TypeFaults): string {
  const [first] = Object.entries(faults);
  const tabs = [...new Set(Object.keys(faults).map((place) => PLACES[place.split('.')[0]!] ?? 'Data sheet'))];
  return `${tabs.join(', ')}. First: ${first![1].replace(/\.$/u, '')}`;
}
