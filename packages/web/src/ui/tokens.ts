/** The colours of one appearance, by what they are for. */
interface Palette {
  readonly bg: string;
  readonly surface: string;
  readonly sunken: string;
  readonly ink: string;
  readonly inkSoft: string;
  readonly line: string;
  readonly lineStrong: string;
  readonly accent: string;
  readonly onAccent: string;
  readonly accentSoft: string;
  readonly brass: string;
  readonly steel: string;
  readonly steelDark: string;
  readonly inside: string;
  readonly close: string;
  readonly tight: string;
  readonly loose: string;
  readonly blocked: string;
  readonly attentionSoft: string;
}

export const APPEARANCES = ['light', 'dark', 'workshop'] as const;
export type Appearance = (typeof APPEARANCES)[number];

/**
 * Light is paper on a layout table, dark is for the evening shift, workshop is black, white and thick lines for a wall
 * screen across the room. Text colours keep at least 4.5:1 on surface, bg and sunken.
 */
export const PALETTES: Readonly<Record<Appearance, Palette>> = {
  light: {
    bg: '#f2efe7',
    surface: '#fffdf9',
    sunken: '#e8e4d9',
    ink: '#17202b',
    inkSoft: '#49535f',
    line: '#d3cdbd',
    lineStrong: '#7d7868',
    accent: '#1c4587',
    onAccent: '#ffffff',
    accentSoft: '#dde7f6',
    brass: '#7a5300',
    steel: '#d5d9dd',
    steelDark: '#5d6771',
    inside: '#0a6248',
    close: '#7f4b00',
    tight: '#a3123a',
    loose: '#652a94',
    blocked: '#7c0d0d',
    attentionSoft: '#fbe9d7',
  },
  dark: {
    bg: '#12161b',
    surface: '#1a2027',
    sunken: '#0b0e12',
    ink: '#f0f2f4',
    inkSoft: '#b0bac5',
    line: '#36404b',
    lineStrong: '#8390a0',
    accent: '#92b8ff',
    onAccent: '#0a1a36',
    accentSoft: '#22324d',
    brass: '#e5bb63',
    steel: '#3b4550',
    steelDark: '#a4b0bd',
    inside: '#63d3aa',
    close: '#f1b75c',
    tight: '#ff8da2',
    loose: '#cfa8ff',
    blocked: '#ffb09f',
    attentionSoft: '#3c2c17',
  },
  workshop: {
    bg: '#000000',
    surface: '#000000',
    sunken: '#161616',
    ink: '#ffffff',
    inkSoft: '#ffffff',
    line: '#a8a8a8',
    lineStrong: '#ffffff',
    accent: '#ffe14a',
    onAccent: '#000000',
    accentSoft: '#3a3300',
    brass: '#ffe14a',
    steel: '#444444',
    steelDark: '#ffffff',
    inside: '#6dffa8',
    close: '#ffcf4a',
    tight: '#ff9fb0',
    loose: '#dcbcff',
    blocked: '#ffb9aa',
    attentionSoft: '#332400',
  },
};

function kebab(name: string): string {
  return name.replace(/[A-Z]/gu, (letter) => `-${letter.toLowerCase()}`);
}

/** The custom properties of one appearance as CSS declarations. */
export function declarationsOf(appearance: Appearance): string {
  return Object.entries(PALETTES[appearance])
    .map(([name, value]) => `--${kebab(name)}: ${value};`)
    .join('');
}
