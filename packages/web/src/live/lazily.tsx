import { type ComponentType, useEffect, useState } from 'react';
import { useAppSelector } from '../base/store.js';
import { Panel, PanelTitle } from '../ui/Panel.js';
import { Loading } from './Loading.js';

/** How long after a failure it is tried again, ms. */
const AGAIN_MS = 3000;

/** A view that is fetched when it is first opened, and kept. */
export interface LazyView<Props = object> {
  /** Fetches it now, whether it is opened or not. */
  readonly fetch: () => Promise<ComponentType<Props>>;
  readonly View: ComponentType<Props>;
}

/** Something beside a view, with what it is shown with: its place stays empty until it is there. */
export function lazilyWith<Props extends object>(load: () => Promise<ComponentType<Props>>): LazyView<Props> {
  return lazily(load, true);
}

/**
 * A view that is fetched when it is first opened. While the server does not answer, that is said in its place, everything around it
 * stays, and it is fetched as soon as it can be.
 *
 * @param isAside something beside a view, whose place stays empty until it is there
 */
export function lazily<Props extends object = object>(
  load: () => Promise<ComponentType<Props>>,
  isAside = false,
): LazyView<Props> {
  let kept: ComponentType<Props> | null = null;
  const fetch = async () => {
    kept ??= await load();
    return kept;
  };
  function View(props: Props) {
    const [Shown, show] = useState(() => kept);
    const [failures, setFailures] = useState(0);
    const isAway = useAppSelector((state) => state.saving.unreachable);
    // biome-ignore lint/correctness/useExhaustiveDependencies: a failure, and a server that is back, make it worth trying again
    useEffect(() => {
      if (Shown) return;
      let isCurrent = true;
      const start = () =>
        void fetch()
          .then((found) => isCurrent && show(() => found))
          .catch(() => isCurrent && setFailures((count) => count + 1));
      const timer = setTimeout(start, failures === 0 ? 0 : AGAIN_MS);
      return () => {
        isCurrent = false;
        clearTimeout(timer);
      };
    }, [Shown, failures, isAway]);
    if (Shown) return <Shown {...props} />;
    if (isAside) return null;
    if (failures === 0) return <Loading />;
    return (
      <Panel role="alert">
        <PanelTitle as="h1">This page could not be fetched yet</PanelTitle>
        <p>
          This page is not available offline, as it was not opened here before. Your entries are saved on this device.
          The page opens when the server is back.
        </p>
      </Panel>
    );
  }
  return { fetch, View };
}
