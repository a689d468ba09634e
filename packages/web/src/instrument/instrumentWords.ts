import { type InstrumentSummary, lengthText, momentText, nanometres, type RegisteredInstrument } from '@fettle/core';
import { today } from '../base/today.js';

/** How the calibration of an instrument stands. */
export type CalibrationStanding = 'wrong' | 'overdue' | 'soon' | 'held' | 'none';

/** So many days before it is due, a calibration is told. */
const SOON_DAYS = 30;

function daysUntil(day: string): number {
  return Math.round((Date.parse(day) - Date.parse(today())) / 86_400_000);
}

/** How a calibration stands today: found wrong, overdue, due within a month, held, or none. */
export function standingOf({
  calibratedOn,
  due,
  isWrong,
}: Pick<InstrumentSummary, 'calibratedOn' | 'due' | 'isWrong'>): CalibrationStanding {
  if (isWrong) return 'wrong';
  if (calibratedOn === null) return 'none';
  if (due === null) return 'held';
  const days = daysUntil(due);
  return days < 0 ? 'overdue' : days <= SOON_DAYS ? 'soon' : 'held';
}

/** How a calibration stands, in words. */
export function standingWords(one: Pick<InstrumentSummary, 'calibratedOn' | 'due' | 'isWrong'>): string {
  const standing = standingOf(one);
  if (standing === 'wrong') return 'last calibration found wrong';
  if (standing === 'none') return 'not calibrated';
  if (one.due === null) return `calibrated ${one.calibratedOn}`;
  return standing === 'overdue' ? `overdue since ${one.due}` : `due ${one.due}`;
}

/** What an instrument reads, or the size of a master: `50 to 75 mm`. */
export function rangeWords({ range, size, unit }: Pick<RegisteredInstrument, 'range' | 'size' | 'unit'>): string {
  if (size !== null) return lengthText(size, unit);
  if (range === null) return '';
  return `${lengthText(range.low, unit).replace(` ${unit}`, '')} to ${lengthText(range.high, unit)}`;
}

/** A name at the beginning of a sentence. */
export function capital(name: string): string {
  return name.replace(/^./u, (letter) => letter.toUpperCase());
}

/** What the last zero check showed, and when. */
export function checkWords(
  { lastCheck }: Pick<InstrumentSummary, 'lastCheck'>,
  unit: RegisteredInstrument['unit'],
): string {
  if (lastCheck === null) return 'never';
  return `${shownWords(lastCheck.shown, unit)}, ${momentText(lastCheck.at)}`;
}

/** What an instrument showed on its standard: `0`, or `0.002 mm too much`. */
export function shownWords(shown: number, unit: RegisteredInstrument['unit']): string {
  if (shown === 0) return 'zero';
  return `${lengthText(nanometres(Math.abs(shown)), unit)} too ${shown > 0 ? 'much' : 'little'}`;
}
