import { type Share, shareInside, trustRatio } from '@fettle/core';
import * as d3 from 'd3';
import { Notice } from '../ui/Notice.js';
import { Panel, PanelTitle, Quiet } from '../ui/Panel.js';
import { api } from '../wire/api.js';
import { refusalInWords } from '../wire/ask.js';
import { BehindLink } from './BehindLink.js';
import { Svg } from './chartParts.js';
import { KnownNothing } from './KnownNothing.js';
import { KnownTable } from './KnownTable.js';
import { percentText } from './knownText.js';
import { useKnown } from './useKnown.js';

interface Level {
  readonly stated: number;
  readonly found: Share;
}

const SIZE = 320;
const EDGE = 46;

/** How many trials came within what was stated, against what was stated: on the line where the ± are honest. */
function TrustChart({ levels }: { readonly levels: readonly Level[] }) {
  const x = d3.scaleLinear([0.4, 1], [EDGE, SIZE - 24]);
  const y = d3.scaleLinear([0, 1], [SIZE - EDGE, 12]);
  return (
    <Svg
      viewBox={`0 0 ${SIZE} ${SIZE}`}
      role="img"
      aria-label="Trials within the stated ±"
      style={{ maxWidth: '26rem' }}
    >
      <rect className="frame" x={EDGE} y={12} width={SIZE - EDGE - 24} height={SIZE - EDGE - 12} rx={4} />
      <line className="even" x1={x(0.4)} y1={y(0.4)} x2={x(1)} y2={y(1)} />
      {levels.map(({ stated, found }) => (
        <g key={stated}>
          <line className="whisker" x1={x(stated)} x2={x(stated)} y1={y(found.low)} y2={y(found.high)} />
          <circle className="dot" cx={x(stated)} cy={y(found.share)} r={5} />
        </g>
      ))}
      {[0.5, 0.75, 1].map((value) => (
        <text key={value} className="figure" x={x(value)} y={SIZE - 26} textAnchor="middle">
          {percentText(value)}
        </text>
      ))}
      {[0, 0.25, 0.5, 0.75, 1].map((value) => (
        <text key={value} className="figure" x={EDGE - 6} y={y(value) + 4} textAnchor="end">
          {percentText(value)}
        </text>
      ))}
      <text x={(SIZE + EDGE) / 2} y={SIZE - 8} textAnchor="middle">
        stated
      </text>
    </Svg>
  );
}

/** What the share within ± twice the standard uncertainty says of the ±: too narrow, too wide, or as good as they say. */
export function trustVerdict({ stated, found }: Level): 'narrow' | 'wide' | 'honest' {
  if (found.high < stated) return 'narrow';
  return found.low > stated ? 'wide' : 'honest';
}

const WORDS = {
  narrow: '± too small: more trials outside than expected. Readings are less certain than stated.',
  wide: '± too large: more trials inside than expected. The starting uncertainties may be lowered.',
  honest: '± as stated, as far as this many trials show.',
} as const;

/** Are the ± honest: trials that came within what was stated. */
export function TrustKnown() {
  const { scope } = useKnown();
  const { currentData: data, error } = api.useKnownTrustQuery(scope, { refetchOnMountOrArgChange: true });
  if (error) return <Notice urgent>{refusalInWords(error)}</Notice>;
  if (!data) return <p aria-busy>Loading …</p>;
  const levels = data.levels.flatMap(({ stated, inside }): Level[] => {
    const found = shareInside(inside, data.checks);
    return found ? [{ stated, found }] : [];
  });
  if (levels.length === 0) {
    return (
      <KnownNothing>
        No second trial with the same series and fasteners yet. The first gives the offset, the next checks it.
      </KnownNothing>
    );
  }
  const trust = trustRatio(data);
  const main = levels.find(({ stated }) => stated === 0.9545)!;
  return (
    <Panel aria-label="Are the ± honest">
      <PanelTitle>Are the ± honest?</PanelTitle>
      <p>
        <strong className="figure" style={{ fontSize: '1.75rem' }}>
          {percentText(main.found.share)}
        </strong>{' '}
        of{' '}
        <BehindLink to={{ what: 'check' }} label="the ± check">
          {data.checks} trials
        </BehindLink>{' '}
        came within the stated ± ({percentText(main.stated)}). True share: {percentText(main.found.low)} to{' '}
        {percentText(main.found.high)}.
      </p>
      <p>
        <strong>{WORDS[trustVerdict(main)]}</strong>
        {trust &&
          ` Actual scatter is ${trust.ratio.toFixed(2)} times the stated one (95 %: ${trust.low.toFixed(2)} to ${trust.high.toFixed(2)}, from ${data.engines} engines). ${
            trust.factor === 1
              ? ''
              : `An engine’s page Trial assembly offers ${trust.factor} times the usual starting figures.`
          }`}
      </p>
      <TrustChart levels={levels} />
      <Quiet>
        Each trial against the prediction from its parts and the earlier trials of the engine. The first trial of an
        engine gives the offset and is not counted. Lines: 95 % interval of the true share (Clopper and Pearson). Trials
        of one engine share some errors, so with few engines the true interval is wider.
      </Quiet>
      <KnownTable
        label="Trials within the stated ±"
        file="trust"
        items={levels}
        keyOf={({ stated }) => String(stated)}
        columns={[
          { head: 'Stated', text: ({ stated }) => percentText(stated), sortBy: ({ stated }) => stated, isFigure: true },
          {
            head: 'Found',
            text: ({ found }) => percentText(found.share),
            sortBy: ({ found }) => found.share,
            isFigure: true,
          },
          {
            head: 'True share, 95 %',
            text: ({ found }) => `${percentText(found.low)} to ${percentText(found.high)}`,
            sortBy: ({ found }) => found.low,
            isFigure: true,
          },
        ]}
      />
    </Panel>
  );
}
