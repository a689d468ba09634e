import base from './playwright.config.js';

const { webServer: _, ...rest } = base;
export default {
  ...rest,
  timeout: 90_000,
  expect: { timeout: 7000 },
  use: { ...base.use, baseURL: 'http://127.0.0.1:4795', actionTimeout: 7000 },
};
