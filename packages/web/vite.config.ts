import react from '@vitejs/plugin-react';
import { defineConfig, type HtmlTagDescriptor, type Plugin } from 'vite';
import { compression } from 'vite-plugin-compression2';
import { VitePWA } from 'vite-plugin-pwa';

/**
 * What the first page shows beside React: small pieces that would be a request each, with more of headers than of code. One chunk of them.
 */
const FIRST_PAGE = new RegExp(
  [
    String.raw`packages/web/src/(?:${[
      String.raw`base/(?:unsaved|local\w+|newId|use[A-Z]\w+)`,
      String.raw`person/use[A-Z]\w+`,
      'ui/(?:Ask|Button|Field|Notice|Panel|Sample|SearchField|keepFocus|useKeptText|appearanceSlice|tokens)',
      'wire/polling',
      'job/(?:StageMark|undoSlice)',
      'live/liveSlice',
      'drawer/layMoved',
      'saving/(?:maySend|savingSlice|outbox|knownEngine|joinParcels)',
      'shell/(?:versionSlice|store|keepPage)',
      'shortcuts/shortcuts',
      'bench/(?:BenchList|EnginePage|SamplesNotice|TakenOff|DueEngines)',
    ].join('|')})\.`,
    String.raw`packages/core/src/document/mergeThreeWays\.`,
    String.raw`lucide-react/dist/esm/icons/(?:plus|rotate-ccw|search|trash|trash-2|triangle-alert|x|check|user-round)\.`,
    String.raw`date-fns/(?:intlFormatDistance|differenceInCalendar\w+|toDate|constructFrom|constants|startOf(?:Day|Week|ISOWeek)|getQuarter|_lib/(?:normalizeDates|defaultOptions|addLeadingZeros|getTimezoneOffsetInMilliseconds))\.`,
  ].join('|'),
  'u',
);

/** What the first page needs at once, of which the browser would hear only when the scripts that ask for it have run. */
const AT_ONCE = [
  { name: /atkinson-hyperlegible-next-latin-wght-normal.*\.woff2$/u, rel: 'preload', as: 'font', type: 'font/woff2' },
] as const;

/** Names them in the page. */
const atOnce: Plugin = {
  name: 'fettle-at-once',
  transformIndexHtml: {
    order: 'post',
    handler: (_html, { bundle }) =>
      AT_ONCE.flatMap(({ name, ...attributes }): HtmlTagDescriptor[] => {
        const file = Object.keys(bundle ?? {}).find((one) => name.test(one));
        if (bundle && file === undefined) throw new Error(`nothing is built that is called as ${name}`);
        const nonce = '__FETTLE_NONCE__';
        const attrs = { ...attributes, href: `/${file}`, crossorigin: '', nonce };
        return file === undefined ? [] : [{ tag: 'link', injectTo: 'head', attrs }];
      }),
  },
};

/** Puts what names the fonts into the page itself: a request of its own would hold up what is drawn first. */
const styleInPage: Plugin = {
  name: 'fettle-style-in-page',
  enforce: 'post',
  transformIndexHtml: {
    order: 'post',
    handler: (html, { bundle }) =>
      html.replace(/<link rel="stylesheet"[^>]* href="\/([^"]+)"[^>]*>/gu, (_link, file: string) => {
        const asset = bundle?.[file];
        if (asset?.type !== 'asset') throw new Error(`the style ${file} is not in what is built`);
        return `<style nonce="__FETTLE_NONCE__">${asset.source}</style>`;
      }),
  },
};

/** Takes the descriptions out of the core's schemas: the server prints them, a page has no use for them. */
const withoutDescriptions: Plugin = {
  name: 'fettle-without-descriptions',
  apply: 'build',
  enforce: 'pre',
  transform(code, id) {
    if (!/packages\/core\/src\/.*\.ts$/u.test(id)) return null;
    const DESCRIBED = /\s*\.describe\(\s*(?:'(?:[^'\\\n]|\\.)*'|"(?:[^"\\\n]|\\.)*"|`[^`$\\]*`),?\s*\)/gu;
    return { code: code.replace(DESCRIBED, ''), map: null };
  },
};

export default defineConfig({
  // Text is compressed once, when it is built, as far as it goes.
  plugins: [
    react(),
    withoutDescriptions,
    atOnce,
    styleInPage,
    // The page itself works without the server: everything it is made of is kept in the browser, but what only files are read and written with.
    VitePWA({
      strategies: 'generateSW',
      registerType: 'prompt',
      injectRegister: null,
      manifest: {
        name: 'Fettle',
        short_name: 'Fettle',
        description: 'Selects bearing shells from measured housings and journals.',
        display: 'standalone',
        start_url: '/',
        background_color: '#f1efe8',
        theme_color: '#1c4587',
        icons: [{ src: '/mark.svg', sizes: 'any', type: 'image/svg+xml', purpose: 'any' }],
      },
      workbox: {
        globPatterns: ['**/*.{js,css,html,svg,woff2,wasm}'],
        globIgnores: [
          '**/xlsxWorker*',
          '**/universal-*',
          '**/*-latin-ext-*',
          '**/*-cyrillic*',
          '**/*-greek*',
          '**/*-vietnamese*',
        ],
        maximumFileSizeToCacheInBytes: 5_000_000,
        navigateFallback: 'index.html',
        navigateFallbackDenylist: [/^\/api\//u, /^\/workshop\.crt/u],
        cleanupOutdatedCaches: true,
        inlineWorkboxRuntime: true,
        skipWaiting: false,
        clientsClaim: true,
        sourcemap: false,
      },
    }),
    compression({ algorithms: ['gzip', 'brotliCompress'], include: /\.(js|css|svg|wasm)$/u, threshold: 500 }),
  ],
  resolve: { conditions: ['@fettle/source', 'module', 'browser', 'development|production'] },
  html: { cspNonce: '__FETTLE_NONCE__' },
  worker: { format: 'es' },
  build: {
    outDir: 'dist/page',
    target: 'es2023',
    emptyOutDir: true,
    chunkSizeWarningLimit: 900,
    rolldownOptions: { output: { advancedChunks: { groups: [{ name: 'first', test: FIRST_PAGE }] } } },
  },
  server: {
    host: '127.0.0.1',
    proxy: process.env.FETTLE_API ? { '/api': process.env.FETTLE_API } : {},
  },
});
