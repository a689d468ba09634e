import { existsSync } from 'node:fs';
import type { LaunchOptions } from '@playwright/test';

const PLACES = ['/usr/bin/chromium', '/usr/bin/chromium-browser'];

/** Debian's own Chromium, without anything that would call home. */
export function chromiumOptions(): LaunchOptions {
  const executablePath = process.env.FETTLE_CHROMIUM ?? PLACES.find((place) => existsSync(place));
  if (!executablePath) throw new Error("Chromium is missing; npm test installs it from Debian's packages.");
  return {
    executablePath,
    args: [
      '--no-sandbox',
      '--disable-dev-shm-usage',
      '--disable-gpu',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
      '--no-first-run',
    ],
  };
}
