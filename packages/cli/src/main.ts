#!/usr/bin/env node
import { runFettle } from './runFettle.js';
import { standardStreams } from './standardStreams.js';

const { write, complain, isClosed, ended } = standardStreams(process.stdout, process.stderr);
const status = await runFettle(process.argv.slice(2), {
  input: process.stdin,
  write,
  complain,
  isClosed,
  // A person is told how far it is; a program that reads standard error gets faults only.
  tell: process.stderr.isTTY ? complain : undefined,
});
process.exitCode = await ended(status);
