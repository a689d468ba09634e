// Takes docs/screenshots anew from the demo data, on a fresh copy of the application.
import { runOnDemo } from './onDemo.mjs';

process.exit(await runOnDemo('takeScreenshots.ts'));
