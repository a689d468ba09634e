#!/usr/bin/env node
import { runFettle } from './runFettle.js';

process.exitCode = await runFettle(process.argv.slice(2), {
  input: process.stdin,
  write: (text) => process.stdout.write(text),
  complain: (text) => process.stderr.write(text),
  // A person is told how far it is; a program that reads standard error gets faults only.
  tell: process.stderr.isTTY ? (text) => process.stderr.write(text) : undefined,
});
