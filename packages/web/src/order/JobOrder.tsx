import { Link } from 'react-router';
import { useOpenJob } from '../job/JobPage.js';
import { Panel } from '../ui/Panel.js';
import { OrderAdvisor } from './OrderAdvisor.js';

/** What to have on the shelf for one engine, from what is known of it so far. */
export function JobOrder() {
  const { id, document, readings } = useOpenJob();
  if (!document.sheet) {
    return (
      <Panel>
        This engine has no data sheet with grades. Take one from the library on the <Link to="../data">data sheet</Link>{' '}
        page.
      </Panel>
    );
  }
  return <OrderAdvisor id={id} document={document} readings={readings} name={document.name} />;
}
