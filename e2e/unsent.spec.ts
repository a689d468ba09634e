import { nanometres } from '@fettle/core';
import { expect, request as requests, test } from '@playwright/test';
import { choose } from './choices.js';
import { ASSEMBLED_SEDGE_4, allSaved, enter, MARKED_SEDGE_4, putOnBench, reedDocument, SEDGE_TYPE } from './engines.js';

test('typed from another host over plain HTTP, a reading is kept as anywhere', async ({ page, request }) => {
  const id = await putOnBench(request, reedDocument('Reed 6 from afar'));
  // What such a page does not have: browsers give it to secure origins only.
  await page.addInitScript(() => {
    Reflect.deleteProperty(Crypto.prototype, 'randomUUID');
    Object.defineProperty(Navigator.prototype, 'locks', { value: undefined });
  });
  await page.goto(`/engines/${id}/bores`);
  await page.getByLabel('M1 main bore front plane, mm').fill('64.010');
  await page.keyboard.press('Enter');
  await allSaved(page);
  await expect
    .poll(async () =>
      (await (await request.get(`/api/jobs/${id}`)).json()).readings.map(({ text }: { text: string }) => text),
    )
    .toEqual(['64.010']);
});

test('two tabs without a server each keep what was typed in them, and all of it arrives', async ({
  context,
  request,
}) => {
  const id = await putOnBench(request, reedDocument('Reed 6 in two tabs'));
  const [one, two] = [await context.newPage(), await context.newPage()];
  for (const page of [one, two]) {
    await page.goto(`/engines/${id}/bores`);
    await expect(page.getByLabel('M1 main bore front plane, mm')).toBeVisible();
    await allSaved(page);
  }
  await context.setOffline(true);
  for (const [page, main, text] of [
    [one, 'M1', '64.010'],
    [two, 'M2', '64.011'],
    [one, 'M3', '64.012'],
  ] as const) {
    await page.getByLabel(`${main} main bore front plane, mm`).fill(text);
    await page.keyboard.press('Enter');
    await expect(page.getByText(/saved on this device/u)).toBeVisible();
  }
  // One of them is gone before the server is back: the other one sends for it.
  await one.close();
  await context.setOffline(false);
  await allSaved(two);
  await expect
    .poll(
      async () =>
        (await (await request.get(`/api/jobs/${id}`)).json()).readings.map(({ text }: { text: string }) => text).sort(),
      { timeout: 30_000 },
    )
    .toEqual(['64.010', '64.011', '64.012']);
});

test('what the server cannot take is set aside and shown, and the rest goes on', async ({ page, request }) => {
  const id = await putOnBench(request, reedDocument('Reed 6 set aside'));
  await page.goto(`/engines/${id}/bores`);
  // The server judges the first reading, and refuses it.
  await page.route(/\/readings\//u, async (route) => {
    if (!(route.request().postData() ?? '').includes('64.010')) return route.continue();
    await route.fulfill({
      status: 422,
      contentType: 'application/problem+json',
      body: JSON.stringify({
        type: '/api/docs#invalid-request',
        title: 'Something in the request is not valid',
        status: 422,
        detail: 'It is none.',
      }),
    });
  });
  await page.getByLabel('M1 main bore front plane, mm').fill('64.010');
  await page.keyboard.press('Enter');
  await page.keyboard.type('64.011');
  await page.keyboard.press('Enter');
  await expect(page.getByText('M1 main bore, front plane: “64.010” was not taken')).toBeVisible();
  await expect(page.getByText('Saved, except one change needing a decision')).toBeVisible();
  const texts = (await (await request.get(`/api/jobs/${id}`)).json()).readings.map(
    ({ text }: { text: string }) => text,
  );
  expect(texts).toEqual(['64.011']);
  // It survives a reload, and goes once it can.
  await page.unroute(/\/readings\//u);
  await page.reload();
  await page.getByRole('button', { name: 'Try again' }).click();
  await allSaved(page);
  await expect.poll(async () => (await (await request.get(`/api/jobs/${id}`)).json()).readings.length).toBe(2);
});

test('what the server fails at by a fault of its own is never set aside: it waits, is tried again, and the rest goes on', async ({
  page,
  request,
}) => {
  const id = await putOnBench(request, reedDocument('Reed 6 at fault'));
  await page.goto(`/engines/${id}/bores`);
  let tries = 0;
  await page.route(/\/readings\//u, async (route) => {
    if (!(route.request().postData() ?? '').includes('64.010')) return route.continue();
    tries += 1;
    const problem = { type: '/api/docs#server-fault', title: 'Something went wrong', status: 500, detail: 'Logged.' };
    await route.fulfill({ status: 500, contentType: 'application/problem+json', body: JSON.stringify(problem) });
  });
  await page.getByLabel('M1 main bore front plane, mm').fill('64.010');
  await page.keyboard.press('Enter');
  await page.keyboard.type('64.011');
  await page.keyboard.press('Enter');
  const texts = async () =>
    (await (await request.get(`/api/jobs/${id}`)).json()).readings.map(({ text }: { text: string }) => text);
  await expect.poll(texts).toEqual(['64.011']);
  await expect(page.getByText('The server could not save 1 change. Saved on this device, trying again')).toBeVisible();
  await expect.poll(() => tries, { timeout: 20_000 }).toBeGreaterThan(2);
  await expect(page.getByText('was not taken')).toBeHidden();
  // By itself, once the server is well.
  await page.unroute(/\/readings\//u);
  await expect.poll(texts, { timeout: 30_000 }).toEqual(['64.010', '64.011']);
  await allSaved(page);
});

test('who clears the site’s data is told what the server knows to be missing from that browser', async ({
  context,
  page,
  request,
}) => {
  const id = await putOnBench(request, reedDocument('Reed 6 cleared'));
  await page.goto(`/engines/${id}/bores`);
  // The server fails at the readings, and answers everything else.
  await page.route(/\/readings\//u, async (route) => {
    const problem = { type: '/api/docs#server-fault', title: 'Something went wrong', status: 500, detail: 'Logged.' };
    await route.fulfill({ status: 500, contentType: 'application/problem+json', body: JSON.stringify(problem) });
  });
  const told = page.waitForResponse((response) => response.url().includes('/api/unsent/') && response.ok(), {
    timeout: 60_000,
  });
  await page.getByLabel('M1 main bore front plane, mm').fill('64.010');
  await page.keyboard.press('Enter');
  await told;
  await page.unroute(/\/readings\//u);
  await page.goto('about:blank');
  const session = await context.newCDPSession(page);
  const origin = new URL(test.info().project.use.baseURL!).origin;
  await session.send('Storage.clearDataForOrigin', { origin, storageTypes: 'all' });
  await page.goto('/');
  const note = page.getByRole('alert').filter({ hasText: 'have not reached the server' });
  await expect(note.getByRole('link', { name: 'Reed 6 cleared: M1 main bore, front plane, “64.010”' })).toBeVisible();
  await note.getByRole('button', { name: 'Remove this note' }).click();
  await expect(note).toBeHidden();
  await page.reload();
  await expect(page.getByRole('list', { name: 'Engines' })).toBeVisible();
  await expect(page.getByRole('button', { name: /Theme/ })).toBeVisible();
  await expect(note).toBeHidden();
});

test('a full disk of the server is told as that, and what was typed goes once there is room', async ({
  page,
  request,
}) => {
  const id = await putOnBench(request, reedDocument('Reed 6 disk full'));
  await page.goto(`/engines/${id}/bores`);
  await allSaved(page);
  await page.route(/\/readings\//u, async (route) => {
    const detail = 'The server’s disk is full. Not saved. Free some space on it.';
    const problem = { type: '/api/docs#disk-full', title: 'The server’s disk is full', status: 507, detail };
    await route.fulfill({ status: 507, contentType: 'application/problem+json', body: JSON.stringify(problem) });
  });
  await page.getByLabel('M1 main bore front plane, mm').fill('64.010');
  await page.keyboard.press('Enter');
  await expect(page.getByText('The server’s disk is full. 1 change saved on this device')).toBeVisible();
  await page.unroute(/\/readings\//u);
  await allSaved(page);
});

test('a clash over a crankpin names the crankpin', async ({ page, request }) => {
  const document = reedDocument('Reed 6 two at a pin', 3, { withRods: true });
  const id = await putOnBench(request, document);
  await page.goto(`/engines/${id}/pins`);
  const box = page.getByLabel(/^P1 crankpin front, 0°/u);
  await page.route(/\/readings\//u, (route) => route.abort());
  await box.fill('47.980');
  await page.keyboard.press('Enter');
  const api = await requests.newContext({ baseURL: new URL(page.url()).origin });
  const draft = {
    feature: 'pin',
    station: 1,
    slot: 'front-0',
    text: '47.990',
    unit: 'mm',
    setting: null,
    replaces: null,
  };
  const sent = await api.put(`/api/jobs/${id}/readings/${crypto.randomUUID()}`, {
    data: { ...draft, by: 'Reed', at: new Date().toISOString() },
  });
  expect(sent.status()).toBe(201);
  await page.unroute(/\/readings\//u);
  await expect(page.getByText('P1 crankpin, front, 0°: you typed “47.980”')).toBeVisible({ timeout: 20_000 });
  await page.getByRole('button', { name: 'Keep mine' }).click();
  await allSaved(page);
  await api.dispose();
});

test('what a page noted last before it was gone counts, and notes that are older than its rows do not', async ({
  page,
  request,
}) => {
  const id = await putOnBench(request, reedDocument('Reed 6 notes'));
  await page.goto(`/engines/${id}/bores`);
  await allSaved(page);
  const readingOf = (station: number, text: string) => {
    const place = { feature: 'mainBore', station, slot: 'front', unit: 'mm', setting: null, replaces: null };
    return { ...place, text, by: 'Reed', at: new Date().toISOString() };
  };
  const parcelOf = (station: number, text: string) =>
    ({ kind: 'reading', id: crypto.randomUUID(), jobId: id, draft: readingOf(station, text) }) as const;
  const [asked, stays, sent] = [parcelOf(1, '64.010'), parcelOf(2, '64.012'), parcelOf(3, '64.013')];
  const clash = { kind: 'reading', id: asked.id, jobId: id, ours: asked.draft, theirs: null };
  const [quick, slow] = [crypto.randomUUID(), crypto.randomUUID()];
  await page.evaluate(
    async ({ asked, stays, sent, clash, quick, slow }) => {
      const opening = indexedDB.open('fettle');
      const database = await new Promise<IDBDatabase>((done) => {
        opening.onsuccess = () => done(opening.result);
      });
      const writing = database.transaction(['rows', 'marks'], 'readwrite');
      const rowOf = (tab: string, parcel: { id: string }) => ({
        key: `parcel ${parcel.id}`,
        tab,
        at: 1,
        item: { is: 'parcel', parcel },
      });
      // One was asked about just before its page was gone: its row still says that it waits to be sent.
      writing.objectStore('rows').put(rowOf(quick, asked));
      writing.objectStore('marks').put(4, quick);
      // Of the other one only old notes were left, as by a browser that is ended from outside.
      writing.objectStore('rows').put(rowOf(slow, stays));
      writing.objectStore('marks').put(7, slow);
      await new Promise((done) => {
        writing.oncomplete = done;
      });
      database.close();
      const nothing = { parcels: [], clashes: [], refusals: [] };
      const note = (tab: string, noted: object) => localStorage.setItem(`fettle.waiting.${tab}`, JSON.stringify(noted));
      note(quick, { count: 5, waiting: { ...nothing, clashes: [clash] }, gone: [`parcel ${asked.id}`] });
      note(slow, { count: 6, waiting: { ...nothing, parcels: [sent] }, gone: [] });
    },
    { asked, stays, sent, clash, quick, slow },
  );
  await page.reload();
  await expect(page.getByRole('button', { name: 'Keep theirs' })).toHaveCount(1);
  await expect(page.getByText('Saved, except one change needing a decision')).toBeVisible();
  const texts = async () =>
    (await (await request.get(`/api/jobs/${id}`)).json()).readings.map(({ text }: { text: string }) => text);
  expect(await texts()).toEqual(['64.012']);
  await page.getByRole('button', { name: 'Keep mine' }).click();
  await allSaved(page);
  expect((await texts()).sort()).toEqual(['64.010', '64.012']);
  // The rows follow the notes in a moment.
  const notes = () => page.evaluate(() => Object.keys(localStorage).filter((key) => key.startsWith('fettle.waiting')));
  await expect.poll(notes).toEqual([]);
});

test('a fault in the page is shown, and never followed by “saved”', async ({ page, request }) => {
  const id = await putOnBench(request, reedDocument('Reed 6 page fault'));
  await page.goto(`/engines/${id}/bores`);
  await allSaved(page);
  await page.evaluate(() => {
    setTimeout(() => {
      throw new Error('a screw came loose');
    });
  });
  await expect(page.getByText('Page error (a screw came loose)')).toBeVisible();
  await page.getByLabel('M1 main bore front plane, mm').fill('64.010');
  await page.keyboard.press('Enter');
  await expect.poll(async () => (await (await request.get(`/api/jobs/${id}`)).json()).readings.length).toBe(1);
  await expect(page.getByText('All saved')).toBeHidden();
  await page.getByRole('button', { name: 'Reload' }).click();
  await allSaved(page);
});

test('two boxes of one name keep their own unsaved figures over a reload', async ({ page, request }) => {
  const document = reedDocument('Reed 6 alike');
  // Two kinds of half that only their series tells apart: their boxes are called the same.
  const twins = document.shells.thin!;
  const [a, b] = [crypto.randomUUID(), crypto.randomUUID()].sort();
  const shells = { [a!]: { ...twins, series: 'A' }, [b!]: { ...twins, series: 'B' } };
  const id = await putOnBench(request, { ...document, shells });
  await page.goto(`/engines/${id}/drawer`);
  const walls = page.getByRole('textbox', { name: /^Wall of/u });
  await expect(walls).toHaveCount(2);
  await walls.nth(0).fill('1.9x');
  await walls.nth(1).fill('1.8x');
  await page.reload();
  await expect(walls.nth(0)).toHaveValue('1.9x');
  await expect(walls.nth(1)).toHaveValue('1.8x');
});

test('a search that has no answer in its time says so, with what is proven, and goes on when told', async ({
  page,
  request,
}) => {
  // Gaps 2 µm apart and walls in steps of 5 µm: never within 1 µm of each other.
  const document = reedDocument('Reed 6 takes long');
  const id = await putOnBench(request, { ...document, rules: { ...document.rules, maxSpread: nanometres(1000) } });
  for (const [at, bore] of ['64.010', '64.012', '64.014'].entries()) {
    await enter(request, id, 'mainBore', at + 1, bore);
    await enter(request, id, 'mainJournal', at + 1, '59.985');
  }
  // The worker's clock has always just run out, until it is told to be patient.
  await page.route(/fitWorker.*\.js$/u, async (route) => {
    const answer = await route.fetch();
    const rush = `{ let t = 0; const real = performance.now.bind(performance); performance.now = () => (t += 1e7);
      new BroadcastChannel('patience').onmessage = () => { performance.now = () => 1e12 + real(); }; }\n`;
    await route.fulfill({ response: answer, body: `${rush}${await answer.text()}` });
  });
  await page.goto(`/engines/${id}/choose`);
  const said = page.getByText('Out of time');
  await expect(said).toBeVisible();
  await page.evaluate(() => new BroadcastChannel('patience').postMessage('please'));
  await page.getByRole('button', { name: 'Search for another 1 min' }).click();
  await expect(page.getByText(/fit singly, but not within/u).first()).toBeVisible({ timeout: 15_000 });
  await expect(said).toBeHidden();
});

test('half a figure whose note comes back after a browser was ended outright is not taken over the whole one', async ({
  page,
  request,
}) => {
  const id = await putOnBench(request, reedDocument('Reed 6 ended'));
  const notes = () =>
    page.evaluate(() => Object.entries(localStorage).filter(([key]) => /^fettle\.(typing\/|draft\.)/u.test(key)));
  // What the disk still had: a browser writes it late, and what is removed it removes late.
  const onDisk: [string, string][] = [];
  await page.goto(`/engines/${id}/data`);
  const name = page.getByLabel('Name, with its number');
  const least = page.getByLabel('Main oil clearance: low limit, mm');
  await name.fill('Reed 6 en');
  onDisk.push(...(await notes()));
  await name.fill('Reed 6 ended, no 12');
  await name.blur();
  await least.fill('0.0');
  onDisk.push(...(await notes()));
  await least.fill('0.021');
  await least.blur();
  await allSaved(page);
  await page.goto(`/engines/${id}/bores`);
  const [whole, half] = ['M2', 'M3'].map((main) => page.getByLabel(`${main} main bore front plane, mm`));
  await whole!.fill('64.');
  onDisk.push(...(await notes()));
  await whole!.fill('64.0166');
  await page.keyboard.press('Enter');
  await allSaved(page);
  expect(onDisk).toHaveLength(3);
  expect(await notes()).toEqual([]);
  // Typed twice: the first time it was given up, and its note does not count; the second time it was not finished, and does.
  await half!.fill('64.9');
  onDisk.push(...(await notes()));
  await page.keyboard.press('Escape');
  await half!.fill('64.01');
  const unfinished = await notes();
  await page.evaluate(
    (kept) => {
      for (const [key, note] of kept) localStorage.setItem(key, note);
    },
    onDisk.slice(0, 3),
  );
  await page.reload();
  await expect(half!).toHaveValue('64.01');
  await expect(page.getByText('unfinished')).toHaveCount(1);
  await expect(whole!).toHaveValue('64.0166');
  expect(await notes()).toEqual(unfinished);
  await page.evaluate(([key, note]) => localStorage.setItem(key, note), onDisk[3]!);
  await page.reload();
  await expect(half!).toHaveValue('');
  await expect(page.getByText('unfinished')).toHaveCount(0);
  await page.goto(`/engines/${id}/data`);
  await expect(name).toHaveValue('Reed 6 ended, no 12');
  await expect(least).toHaveValue('0.021');
  await allSaved(page);
  const { readings, document } = await (await request.get(`/api/jobs/${id}`)).json();
  expect(readings).toMatchObject([{ text: '64.0166', station: 2 }]);
  expect(document.name).toBe('Reed 6 ended, no 12');
});

test('what waits for its button is there after a reload, with the selected pieces beside it', async ({ page }) => {
  // A kind in the workshop's drawer: what comes or goes, and one half that is measured.
  await page.goto('/drawer');
  await page.getByRole('button', { name: /^Open/ }).first().click();
  await page.getByLabel('Shells or pairs').fill('3');
  await page.getByLabel('Note, such as supplier or engine').fill('off the old shelf');
  await page.getByLabel(/^Reading over the ball/).fill('8.99');
  await page.getByLabel('Its number').fill('12');
  await page.reload();
  await expect(page.getByLabel('Shells or pairs')).toHaveValue('3');
  await expect(page.getByLabel('Note, such as supplier or engine')).toHaveValue('off the old shelf');
  await expect(page.getByLabel(/^Reading over the ball/)).toHaveValue('8.99');
  await expect(page.getByLabel('Its number')).toHaveValue('12');
  // Another kind has boxes of its own, and takes the place of the first.
  await page.getByRole('button', { name: /^Open/ }).nth(1).click();
  await expect(page.getByLabel('Note, such as supplier or engine')).toHaveValue('');

  // An engine that is put together.
  await page.goto(`/engines/${ASSEMBLED_SEDGE_4}/assembly`);
  await page.getByText('Swapped parts').click();
  await choose(page, 'Part', 'lower');
  await page.getByLabel('Reason', { exact: true }).fill('numbers misread');
  await page.reload();
  await expect(page.getByLabel('Reason', { exact: true })).toHaveValue('numbers misread');
  await expect(page.getByLabel('Part')).toContainText('lower');
  await page.goto(`/engines/${ASSEMBLED_SEDGE_4}/sheet`);
  await page.getByRole('button', { name: 'Sign', exact: true }).click();
  await page.getByLabel('Signed by').fill('Teasel');
  await page.reload();
  await page.getByRole('button', { name: 'Sign', exact: true }).click();
  await expect(page.getByLabel('Signed by')).toHaveValue('Teasel');

  await page.goto(`/engines/${MARKED_SEDGE_4}/codes`);
  await page.getByLabel('Mark of the new rod').fill('4');
  await page.reload();
  await expect(page.getByLabel('Mark of the new rod')).toHaveValue('4');

  // The library, and the labels that are in the printer.
  await page.goto(`/types/${SEDGE_TYPE}/mains`);
  const undersize = page.getByLabel(/^Another undersize/).first();
  await undersize.fill('0.25');
  await page.reload();
  await expect(undersize).toHaveValue('0.25');
  await page.goto(`/engines/${ASSEMBLED_SEDGE_4}/labels`);
  await choose(page, 'Labels of', 'own');
  await page.getByLabel('Width, mm').fill('52');
  await page.reload();
  await expect(page.getByLabel('Width, mm')).toHaveValue('52');
});

test('where the browser has no room, what is in the page only is counted, closing it is asked about, and it is written down once there is', async ({
  page,
  request,
}) => {
  const id = await putOnBench(request, reedDocument('Reed 6 no room'));
  await page.addInitScript(() => {
    const full = () => (globalThis as { isFull?: boolean }).isFull === true;
    const fault = () => new DOMException('The quota has been exceeded.', 'QuotaExceededError');
    const { put } = IDBObjectStore.prototype;
    IDBObjectStore.prototype.put = function (this: IDBObjectStore, ...given: Parameters<typeof put>) {
      if (full()) throw fault();
      return put.apply(this, given);
    };
    const { setItem } = Storage.prototype;
    Storage.prototype.setItem = function (this: Storage, ...given: Parameters<typeof setItem>) {
      if (full()) throw fault();
      setItem.apply(this, given);
    };
  });
  await page.goto(`/engines/${id}/bores`);
  await allSaved(page);
  await page.route(/\/readings\//u, (route) => route.abort());
  const type = async (main: string, text: string) => {
    await page.getByLabel(`${main} main bore front plane, mm`).fill(text);
    await page.keyboard.press('Enter');
  };
  await type('M1', '64.010');
  await expect(page.getByText('1 change saved on this device')).toBeVisible();
  await page.evaluate(() => Object.assign(globalThis, { isFull: true }));
  await type('M2', '64.011');
  await expect(page.getByText('2 changes saved here, 1 of them in this page only: do not close it')).toBeVisible();
  const asked = page.waitForEvent('dialog');
  void page.close({ runBeforeUnload: true });
  const dialog = await asked;
  expect(dialog.type()).toBe('beforeunload');
  await dialog.dismiss();
  // With room again the next change writes down what the one before could not.
  await page.evaluate(() => Object.assign(globalThis, { isFull: false }));
  await type('M3', '64.012');
  await expect(page.getByText('3 changes saved on this device')).toBeVisible();
  await page.reload();
  await page.unroute(/\/readings\//u);
  await allSaved(page);
  await expect
    .poll(async () =>
      (await (await request.get(`/api/jobs/${id}`)).json()).readings.map(({ text }: { text: string }) => text).sort(),
    )
    .toEqual(['64.010', '64.011', '64.012']);
});
