#!/usr/bin/env node
import { runFettle } from './runFettle.js';

process.exitCode = await runFettle(process.argv.slice(2), {
  input: process.stdin,
  write: (text) => process.stdout.write(text),
  complain: (text) => process.stderr.write(text),
});
