/** Digits that go up or down by one, past nine and nought as well. */
function isRun(pin: string): boolean {
  const steps = [...pin].slice(1).map((digit, at) => (Number(digit) - Number(pin[at]) + 10) % 10);
  return steps.every((step) => step === 1) || steps.every((step) => step === 9);
}

/** The same digits over and over: 0000, 1212, 123123. */
function isRepeated(pin: string): boolean {
  return [1, 2, 3, 4].some((length) => {
    const part = pin.slice(0, length);
    return pin.length > length && pin.length % length === 0 && part.repeat(pin.length / length) === pin;
  });
}

/**
 * Why a PIN is one that everybody tries first; null for any other.
 *
 * @param pin four to eight digits
 * @example commonPin('1234') // 'the digits follow each other'
 * @example commonPin('7777') // 'the same digits come again'
 * @example commonPin('2468') // null
 */
export function commonPin(pin: string): string | null {
  if (isRun(pin)) return 'the digits follow each other';
  return isRepeated(pin) ? 'the same digits come again' : null;
}
