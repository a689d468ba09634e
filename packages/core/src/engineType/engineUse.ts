/** What an engine is built for: it decides which side of the limits many fitters aim at. */
export const ENGINE_USES = ['standard', 'hard'] as const;
export type EngineUse = (typeof ENGINE_USES)[number];

/** What an engine is built for, as it is called in a list. */
export const USE_WORDS = {
  standard: 'Standard use',
  hard: 'Hard use: long full load, racing, towing',
} as const satisfies Record<EngineUse, string>;
