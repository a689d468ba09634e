import {
  FAMILY_TABLE,
  type Family,
  familiesOf,
  type GrindingPlan,
  lengthText,
  MOST_SIZES,
  type NoSize,
  type Unit,
  workedOutText,
} from '@fettle/core';
import styled from 'styled-components';
import { useOpenJob } from '../job/JobPage.js';
import { Choice } from '../ui/Choice.js';
import { Field } from '../ui/Field.js';
import { Fold } from '../ui/Fold.js';
import { Notice } from '../ui/Notice.js';
import { Panel, PanelTitle, Quiet, Table } from '../ui/Panel.js';
import { type Grinding, useGrinding } from './useGrinding.js';

const Fields = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(10rem, 1fr));
  gap: 0.25rem 0.75rem;
  align-items: start;
`;

const Scroll = styled.div`
  overflow-x: auto;
  td, tbody th { vertical-align: middle; min-width: 6rem; }
`;

const Listed = styled.ul`
  padding-left: 1.2rem;
  list-style: disc;
`;

/** What a size is called. */
function sizeName(name: string): string {
  return name === '' ? 'standard' : `${name} under`;
}

/** Money without a currency: nobody said which. */
function moneyText(value: number): string {
  return value.toFixed(2);
}

function whyText(why: NoSize, unit: Unit): string {
  return why.kind === 'too-small'
    ? `too small by ${lengthText(why.by, unit)}`
    : `through the hardened layer by ${lengthText(why.by, unit)}`;
}

/** Which journals are ground to which size, then those that are left as they are. */
function planWords({ journals }: GrindingPlan): string {
  const bySize = new Map<string, { ground: string[]; left: string[] }>();
  for (const { id, size, isGround } of journals) {
    const own = bySize.get(size) ?? { ground: [], left: [] };
    own[isGround ? 'ground' : 'left'].push(id);
    bySize.set(size, own);
  }
  const all = [...bySize];
  return [
    ...all.flatMap(([size, { ground }]) =>
      ground.length > 0 ? [`grind ${ground.join(', ')} to ${sizeName(size)}`] : [],
    ),
    ...all.flatMap(([size, { left }]) => (left.length > 0 ? [`leave ${left.join(', ')} at ${sizeName(size)}`] : [])),
  ].join('; ');
}

function costWords({ grinding, shells, toBuy }: GrindingPlan): string {
  const bought = toBuy
    .map(({ size, pairs }) => `${pairs} ${pairs === 1 ? 'pair' : 'pairs'} ${sizeName(size)}`)
    .join(', ');
  return `grinding ${moneyText(grinding)}, shells ${moneyText(shells)}${bought === '' ? ' (all on hand)' : ` (buy ${bought})`}`;
}

interface PlanProps {
  readonly family: Family;
  readonly unit: Unit;
  readonly grinding: Grinding;
}

/** The plan that costs least, those that cost more, and the sizes that are ruled out. */
function Plans({ family, unit, grinding: { text, answer } }: PlanProps) {
  const { words } = FAMILY_TABLE[family];
  if (!answer) return null;
  const { best, alternatives, refused } = answer;
  // A size that only lacks shells could be ground to: then it is not the shaft that stands in the way.
  const isPriceMissing = refused.some(({ journals }) => journals.length === 0);
  const isUnpriced = (['perJournal', 'setUp'] as const).some((name) => text[name].trim() === '');
  return (
    <>
      {best ? (
        <>
          <p style={{ fontSize: '1.25rem' }}>
            <strong>
              {planWords(best).replace(/^./u, (letter) => letter.toUpperCase())}: {moneyText(best.cost)}
            </strong>
          </p>
          <p>
            Cheapest of the sizes with shells, proven: {costWords(best)}.
            {isUnpriced && best.journals.some(({ isGround }) => isGround) && (
              <strong> No price for grinding or set-up yet: it counts as 0.</strong>
            )}
          </p>
        </>
      ) : (
        <Notice>
          {isPriceMissing
            ? 'Enter the price of a pair of shells, or the pairs on hand. A plan needs shells.'
            : 'No size suits all journals. Fit another shaft, or a repair that its maker allows.'}
        </Notice>
      )}
      {alternatives.length > 0 && (
        <Listed aria-label={`Other plans, ${words}`}>
          {alternatives.map((plan) => (
            <li key={plan.journals[0]!.size}>
              {planWords(plan)}: <strong className="figure">{moneyText(plan.cost)}</strong>, {costWords(plan)}
            </li>
          ))}
        </Listed>
      )}
      {refused.length > 0 && (
        <Listed aria-label={`Sizes ruled out, ${words}`}>
          {refused.map(({ size, journals, shortOf }) => (
            <li key={size}>
              Not {sizeName(size)} for all:{' '}
              {journals.length > 0
                ? journals.map(({ id, why }) => `${id} ${whyText(why, unit)}`).join(', ')
                : `${shortOf} pairs of shells have no price`}
            </li>
          ))}
        </Listed>
      )}
    </>
  );
}

/** The sizes of the data sheet, with how many pairs there are and what another one costs. */
function SizesTable({ family, unit, grinding: { text, set, faults, sizes } }: PlanProps) {
  const { words } = FAMILY_TABLE[family];
  return (
    <Scroll>
      <Table aria-label={`Sizes and shells, ${words}`}>
        <thead>
          <tr>
            <th>Size</th>
            <th>Journal, {unit}</th>
            <th>Pairs on hand</th>
            <th>Price of an extra pair</th>
          </tr>
        </thead>
        <tbody>
          {sizes.map(({ name, low, high, onShelf, price }) => (
            <tr key={name}>
              <th scope="row">{sizeName(name)}</th>
              <td className="figure">
                {workedOutText(low, unit)} to {workedOutText(high, unit)}
              </td>
              <td>
                <Field
                  label=""
                  aria-label={`Pairs on hand, ${sizeName(name)}, ${words}`}
                  figure
                  inputMode="numeric"
                  value={text.pairs[name] ?? ''}
                  placeholder={String(onShelf)}
                  onChange={(value) => set({ pairs: { ...text.pairs, [name]: value } })}
                  fault={faults.get(`pairs ${name}`) ?? null}
                />
              </td>
              <td>
                <Field
                  label=""
                  aria-label={`Price of a pair, ${sizeName(name)}, ${words}`}
                  figure
                  inputMode="decimal"
                  value={text.prices[name] ?? ''}
                  placeholder={price === null ? 'no price' : moneyText(price)}
                  onChange={(value) => set({ prices: { ...text.prices, [name]: value } })}
                  fault={faults.get(`price ${name}`) ?? null}
                />
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
    </Scroll>
  );
}

/** What the plan is asked with. */
function Questions({ unit, grinding: { text, set, faults } }: Omit<PlanProps, 'family'>) {
  const field = (name: 'perJournal' | 'setUp' | 'cleanUp' | 'hardened', label: string) => (
    <Field
      label={label}
      figure
      inputMode="decimal"
      value={text[name]}
      onChange={(value) => set({ [name]: value })}
      fault={faults.get(name) ?? null}
    />
  );
  return (
    <Fields style={{ marginTop: '0.75rem' }}>
      <Choice
        label="Journal sizes"
        value={text.areAlike ? 'alike' : 'apart'}
        options={[
          { value: 'alike', label: 'one for all' },
          { value: 'apart', label: 'each its own' },
        ]}
        onChange={(value) => set({ areAlike: value === 'alike' })}
      />
      {field('perJournal', 'Grinding per journal')}
      {field('setUp', 'Set-up per size')}
      {field('cleanUp', `Clean-up allowance, ${unit}`)}
      {field('hardened', `Depth of hardening, ${unit}`)}
    </Fields>
  );
}

/** The plan for the mains or the pins: what is asked, and the sizes that cost least. */
function FamilyPlan({ family }: { readonly family: Family }) {
  const job = useOpenJob();
  const { unit } = job.document;
  const { words } = FAMILY_TABLE[family];
  const grinding = useGrinding(job, family);
  const { unread, sizes } = grinding;
  return (
    <Panel aria-label={`Grinding plan, ${words}`}>
      <PanelTitle>Grinding plan, {words}</PanelTitle>
      {sizes.length === 0 && <Notice>The data sheet gives no limits for these journals. Enter them first.</Notice>}
      {sizes.length > MOST_SIZES && (
        <Notice>
          The data sheet has {sizes.length} sizes: at most {MOST_SIZES} are planned. Remove those that are not made any
          more.{' '}
        </Notice>
      )}
      {unread.length > 0 && <Notice>Read {unread.join(', ')} first: the plan needs them.</Notice>}
      <Plans family={family} unit={unit} grinding={grinding} />
      <Questions unit={unit} grinding={grinding} />
      <SizesTable family={family} unit={unit} grinding={grinding} />
      <Fold>
        <summary>Basis</summary>
        <Quiet>
          A journal that has a size as it is need not be ground for it; one that is ground comes off its smallest
          reading by the clean-up at least. Pairs on hand are counted in any grade: the grades are selected after
          grinding. What is typed here stays on this device. The engine maker and the grinder decide on grinding,
          hardening and crack testing.
        </Quiet>
      </Fold>
    </Panel>
  );
}

/** Which size the journals are to be ground to, at least cost. */
export function GrindingView() {
  const { document } = useOpenJob();
  return familiesOf(document).map((family) => <FamilyPlan key={family} family={family} />);
}
