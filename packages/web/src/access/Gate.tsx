import { useEffect } from 'react';
import { Outlet, useLocation } from 'react-router';
import { useAppDispatch, useAppSelector } from '../base/store.js';
import { lazily } from '../live/lazily.js';
import { lastSession, sessionTold } from '../person/accessSlice.js';
import { Panel } from '../ui/Panel.js';
import { api } from '../wire/api.js';
import { LET_IN_AT } from './letInAt.js';

const signIn = lazily(async () => (await import('./SignIn.js')).SignIn);
const firstOwner = lazily(async () => (await import('./FirstOwner.js')).FirstOwner);
const ownPassword = lazily(async () => (await import('./OwnPassword.js')).FirstPassword);

/** How often it is looked whether one is still signed in, ms. */
const LOOK_EVERY_MS = 60_000;
const AWAY_EVERY_MS = 4000;

/** Shows the page that was asked for to whoever may see it; the others sign in first, at the same address. */
export function Gate() {
  const dispatch = useAppDispatch();
  const { isOn, session } = useAppSelector((state) => state.access);
  const { pathname } = useLocation();
  const { error } = api.useGetSessionQuery(
    {},
    {
      skip: isOn === false,
      // Who goes on from an earlier visit can send nothing until the server has said that they are signed in.
      pollingInterval: session?.token ? LOOK_EVERY_MS : AWAY_EVERY_MS,
      refetchOnReconnect: true,
      refetchOnMountOrArgChange: true,
    },
  );
  const isAway = error !== undefined && 'kind' in error && error.kind === 'unreachable';
  useEffect(() => {
    const last = lastSession();
    // Who was signed in when the server was here last goes on working without it; what they type is sent once they are signed in again.
    if (isAway && session === null && last) dispatch(sessionTold(last));
  }, [isAway, session, dispatch]);
  if (isOn === false || pathname === LET_IN_AT) return <Outlet />;
  if (session === null) {
    return isAway ? (
      <Panel role="alert">
        The server does not answer, and nobody was signed in on this device. Sign in once it is back.
      </Panel>
    ) : (
      <Panel aria-busy>Checking sign-in …</Panel>
    );
  }
  if (session.first) return <firstOwner.View />;
  if (!session.person) return <signIn.View />;
  if (session.person.mustChange) return <ownPassword.View />;
  return <Outlet />;
}
