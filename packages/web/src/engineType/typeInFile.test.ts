import { newEngineType, usualLayout } from '@fettle/core';
import { expect, it } from 'vitest';
import { typeInFile } from './useTypeLibrary.js';

const usual = usualLayout(3, 2, 1, 2);
if (!usual.ok) throw new Error(usual.message);
const type = newEngineType('Rush Twin', 'mm', usual.layout);

it('reads an engine type that was exported', () => {
  expect(typeInFile('rush.json', JSON.stringify(type))).toEqual(type);
});

it.each([
  ['notes.txt', 'Rush Twin', /^notes\.txt is not JSON \(.+\)\. An engine type is a \.json file\.$/u],
  ['rush.json', '{"format":"fettle.type/1"}', /^rush\.json is not an engine type: .+: .+\.$/u],
  ['rush.json', 'null', /^rush\.json is not an engine type: the file: .+\.$/u],
])('says what is wrong with %s', (name, content, fault) => {
  expect(typeInFile(name, content)).toMatch(fault);
});
