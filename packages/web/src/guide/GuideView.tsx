import { groupOf, STAGE_GROUPS, STAGES, stageName } from '@fettle/core';
import { NavLink, useParams } from 'react-router';
import styled from 'styled-components';
import { useTitle } from '../base/useTitle.js';
import { Panel, PanelTitle } from '../ui/Panel.js';
import { GuideText } from './GuideText.js';
import { guidePage, stageOfPage } from './guidePages.js';

const Columns = styled.div`
  display: grid; grid-template-columns: 15rem minmax(0, 1fr); gap: 1rem; align-items: start;
  @media (max-width: 760px) { grid-template-columns: minmax(0, 1fr); }
  nav h2 { font-size: var(--size-small); color: var(--ink-soft); margin-top: 0.4rem; }
  nav a { display: flex; align-items: center; min-height: 2rem; padding: 0 0.5rem; color: var(--ink); text-decoration: none; border-radius: var(--radius); }
  nav a:hover { text-decoration: underline; }
  nav a[aria-current] { background: var(--accent-soft); font-weight: 700; }
`;

/** The handbook: a page for each stage, in the order of the work. */
export function GuideView() {
  const { page } = useParams();
  const stage = page === undefined ? STAGES[0] : stageOfPage(page);
  useTitle(stage === null ? '' : stageName(stage), 'Handbook');
  return (
    <>
      <PanelTitle as="h1">Handbook</PanelTitle>
      <Columns>
        <nav aria-label="Handbook pages">
          {STAGE_GROUPS.map((group) => (
            <div key={group}>
              <h2>{group}</h2>
              {STAGES.filter((one) => groupOf(one) === group).map((one) => (
                <NavLink key={one} to={`/guide/${guidePage(one)}`} aria-current={one === stage ? 'page' : undefined}>
                  {stageName(one)}
                </NavLink>
              ))}
            </div>
          ))}
        </nav>
        <Panel>
          {stage === null ? (
            <p>The handbook has no page “{page}”. Select one from the list.</p>
          ) : (
            <GuideText stage={stage} />
          )}
        </Panel>
      </Columns>
    </>
  );
}
