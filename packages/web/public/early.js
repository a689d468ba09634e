// Asks for what the first page shows while its scripts are still on their way; `ask.ts` takes it from here.
(() => {
  const accounts = document.querySelector('meta[name="fettle-accounts"]')?.content;
  const addresses = [
    ...(accounts === 'no' ? [] : ['/api/session']),
    ...(location.pathname === '/' && location.search === '' ? ['/api/jobs?words='] : []),
  ];
  globalThis.fettleEarly = new Map(addresses.map((address) => [address, fetch(address)]));
  // Who asks for it later hears of what went wrong.
  for (const answer of globalThis.fettleEarly.values()) answer.catch(() => undefined);
})();
