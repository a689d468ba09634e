import { eachFamily, FAMILY_TABLE } from '@fettle/core';
import { Plus, Save, Undo2 } from 'lucide-react';
import { Link, NavLink, Outlet, useLocation, useNavigate, useParams } from 'react-router';
import { useTitle } from '../base/useTitle.js';
import { Button } from '../ui/Button.js';
import { Notice } from '../ui/Notice.js';
import { Panel, PanelTitle, Quiet, Row } from '../ui/Panel.js';
import { Tabs } from '../ui/Tabs.js';
import type { TypeFaults } from './readType.js';
import type { OpenType } from './useOpenType.js';
import { type TypeDraft, useTypeDraft } from './useTypeDraft.js';

const TABS = [
  { to: 'sheet', label: 'Data sheet' },
  { to: 'mains', label: 'Grade marks of the mains' },
  { to: 'rods', label: 'Grade marks of the rods' },
  { to: 'order', label: 'What to order' },
  { to: 'compare', label: 'Revisions' },
] as const;

const PLACES: Readonly<Record<string, string>> = {
  ...eachFamily((family) => `Grade marks of the ${FAMILY_TABLE[family].words}`),
};

/** Where faults stand, by tab, and the first of them. */
function placesInWords(faults: TypeFaults): string {
  const [first] = Object.entries(faults);
  const tabs = [...new Set(Object.keys(faults).map((place) => PLACES[place.split('.')[0]!] ?? 'Data sheet'))];
  return `${tabs.join(', ')}. First: ${first![1].replace(/\.$/u, '')}`;
}

interface OpenProps {
  readonly draft: TypeDraft;
  readonly open: OpenType;
}

/** Its name, how far it is saved, and saving it. */
function Head({ draft, open: { id, view, text } }: OpenProps) {
  const navigate = useNavigate();
  const { isTyped, base, undo } = draft;
  const saved = view ? `Revision ${view.revision}, saved by ${view.updatedBy}` : 'Not in the library yet';
  return (
    <Row style={{ justifyContent: 'space-between' }}>
      <PanelTitle as="h1">{text.name.trim() === '' ? 'New engine type' : text.name}</PanelTitle>
      <Row>
        <Quiet role="status">{isTyped ? 'Changed on this device, not saved yet' : saved}</Quiet>
        <Button isDisabled={undo === null} onPress={() => undo?.()}>
          <Undo2 aria-hidden size={20} />
          Undo
        </Button>
        {view && !isTyped && (
          <Button onPress={() => void navigate(`/new?type=${id}`)}>
            <Plus aria-hidden size={20} />
            New engine of this type
          </Button>
        )}
        {isTyped && view && <Button onPress={draft.drop}>Discard changes</Button>}
        <Button $kind="primary" isDisabled={!isTyped || draft.isBehind} onPress={draft.save}>
          <Save aria-hidden size={20} />
          {view ? `Save as revision ${base + 1}` : 'Save to library'}
        </Button>
      </Row>
    </Row>
  );
}

/** What keeps it from being saved: a fault, a later revision of somebody else, or fields that cannot be read. */
function WhyNotSaved({ draft, open: { id, view, faults } }: OpenProps) {
  const { fault, isBehind, base, isTried } = draft;
  const count = Object.keys(faults).length;
  return (
    <>
      {fault && <Notice urgent>{fault} Your entries are saved on this device.</Notice>}
      {isBehind && view && (
        <Notice
          urgent
          actions={
            <>
              <Button onPress={draft.drop}>Use theirs, discard mine</Button>
              <Button onPress={draft.overwrite}>Overwrite with mine</Button>
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
    </>
  );
}

/** One engine type: typed in as from a book, kept on this device until it is saved as the next revision. */
export function TypePage() {
  const { id = '' } = useParams();
  const { state, pathname } = useLocation();
  const draft = useTypeDraft(id, (state as { isNew?: boolean } | null)?.isNew === true);
  const { open, fault, isLoaded } = draft;
  const tab = TABS.find(({ to }) => pathname.endsWith(`/${to}`));
  useTitle(open?.text.name.trim() || 'Engine type', tab?.label ?? '');
  if (!open) {
    return fault !== null || isLoaded ? (
      <Panel role="alert">
        {fault ?? 'Engine type not found.'} <Link to="/types">Back to the library</Link>
      </Panel>
    ) : (
      <Panel aria-busy>Loading engine type …</Panel>
    );
  }
  return (
    <>
      <Head draft={draft} open={open} />
      <WhyNotSaved draft={draft} open={open} />
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
