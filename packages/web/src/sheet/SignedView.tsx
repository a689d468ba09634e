import { type BuildSheet, comparedSheets, momentText } from '@fettle/core';
import { Download, ShieldAlert, ShieldCheck } from 'lucide-react';
import { useEffect, useState } from 'react';
import { useThousandths } from '../person/useClearances.js';
import { ButtonLink } from '../ui/Button.js';
import { Fold } from '../ui/Fold.js';
import { Notice } from '../ui/Notice.js';
import { Panel, Quiet, Row, Table } from '../ui/Panel.js';
import { Paper } from './Paper.js';
import { pdfAddress } from './pdfAddress.js';
import type { Sheets, SignedWithSheet, Verified } from './useSheets.js';

interface SignedViewProps {
  readonly job: string;
  readonly revision: number;
  readonly sheets: Sheets;
  /** The sheet as it is now. */
  readonly now: BuildSheet;
}

const VERIFIED: Readonly<Record<Verified, string>> = {
  same: 'Its content still has the hash that is printed on it.',
  differs: 'Content and hash do not match: this is not what was signed.',
  'cannot-tell': 'This browser cannot work the hash out over this connection; open the page on the machine itself.',
};

/** In what the engine's sheet differs from a signed one. */
function Differences({ before, now }: { before: BuildSheet; now: BuildSheet }) {
  const differences = comparedSheets(before, now, momentText);
  if (differences.length === 0) return <p>No changes since.</p>;
  return (
    <Fold>
      <summary>
        {differences.length} {differences.length === 1 ? 'thing differs' : 'things differ'} from the current sheet
      </summary>
      <Table aria-label="Differences from the current sheet">
        <thead>
          <tr>
            <th>Where</th>
            <th>Item</th>
            <th>Signed</th>
            <th>Now</th>
          </tr>
        </thead>
        <tbody>
          {differences.map(({ where, what, before: old, now: fresh }) => (
            <tr key={`${where} ${what}`}>
              <td>{where}</td>
              <td>{what}</td>
              <td>{old ?? 'not there'}</td>
              <td>{fresh ?? 'not there'}</td>
            </tr>
          ))}
        </tbody>
      </Table>
    </Fold>
  );
}

/** A signed sheet as it was, with what is known of its hash and what has changed since. */
export function SignedView({ job, revision, sheets, now }: SignedViewProps) {
  const isThou = useThousandths();
  const [signed, setSigned] = useState<SignedWithSheet | null>(null);
  const [verified, setVerified] = useState<Verified | null>(null);
  const { open, verify } = sheets;
  // biome-ignore lint/correctness/useExhaustiveDependencies: a signed sheet never changes: it is fetched once
  useEffect(() => {
    let isCurrent = true;
    void open(revision).then(async (one) => {
      if (!isCurrent || one === null) return;
      setSigned(one);
      const found = await verify(one);
      if (isCurrent) setVerified(found);
    });
    return () => {
      isCurrent = false;
    };
  }, [revision]);
  if (!signed)
    return sheets.fault === null ? (
      <Panel aria-busy>Looking up revision {revision} …</Panel>
    ) : (
      <Notice urgent>{sheets.fault}</Notice>
    );
  const { signedBy, signedAt, reason, open: left, hash, sheet } = signed;
  return (
    <>
      <Panel className="no-print">
        <Row style={{ justifyContent: 'space-between' }}>
          <p role="status">
            {verified === 'same' ? (
              <ShieldCheck aria-hidden size={20} color="var(--inside)" />
            ) : (
              <ShieldAlert aria-hidden size={20} color="var(--close)" />
            )}{' '}
            {verified === null ? 'Working out its hash …' : VERIFIED[verified]}
          </p>
          <ButtonLink href={pdfAddress(job, revision, isThou)} target="_blank" rel="noreferrer">
            <Download aria-hidden size={18} />
            Revision {revision} as PDF
          </ButtonLink>
        </Row>
        <Differences before={sheet} now={now} />
      </Panel>
      <Paper
        label={`Signed sheet, revision ${revision}`}
        sheet={sheet}
        names={
          <div className="signed">
            <p>
              <strong>
                Signed by {signedBy}, {momentText(signedAt)}, revision {revision}
                {reason !== '' && `: ${reason}`}.
              </strong>
            </p>
            <p>{left.length === 0 ? 'No open work.' : `Open when it was signed: ${left.join('; ')}.`}</p>
            <Quiet>
              SHA-256{' '}
              <span className="figure" style={{ overflowWrap: 'anywhere' }}>
                {hash}
              </span>
            </Quiet>
          </div>
        }
      />
    </>
  );
}
