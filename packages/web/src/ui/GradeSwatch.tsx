import type { Paint } from '@fettle/core';
import type { ReactNode } from 'react';
import { useId } from 'react';
import styled from 'styled-components';

/** Paint as it looks in shop light, and the stroke of its pattern on it. */
const PAINT: Readonly<Record<Paint, { fill: string; stroke: string; pattern: ReactNode }>> = {
  black: { fill: '#1c1c1e', stroke: '#ffffff', pattern: null },
  white: { fill: '#ffffff', stroke: '#1c1c1e', pattern: <circle cx="4" cy="4" r="1.2" fill="#1c1c1e" stroke="none" /> },
  red: { fill: '#c4232b', stroke: '#ffffff', pattern: <path d="M0 8 8 0" /> },
  orange: { fill: '#e07a1f', stroke: '#1c1c1e', pattern: <path d="M0 0 8 8" /> },
  yellow: { fill: '#f0cd32', stroke: '#1c1c1e', pattern: <path d="M0 4H8" /> },
  green: { fill: '#1f7a46', stroke: '#ffffff', pattern: <path d="M4 0V8" /> },
  blue: { fill: '#2353a8', stroke: '#ffffff', pattern: <path d="M0 4H8M4 0V8" /> },
  brown: { fill: '#6f4326', stroke: '#ffffff', pattern: <path d="M0 8 8 0M0 0 8 8" /> },
  grey: { fill: '#8b9096', stroke: '#1c1c1e', pattern: <path d="M0 6 2 2 4 6 6 2 8 6" fill="none" /> },
  pink: { fill: '#e58fb0', stroke: '#1c1c1e', pattern: <circle cx="4" cy="4" r="2" fill="none" /> },
  violet: { fill: '#6b3fa0', stroke: '#ffffff', pattern: <path d="M2 2h4v4H2z" fill="none" /> },
};

const Swatch = styled.svg`
  flex: none;
  vertical-align: -0.15em;
`;

/** A dab of paint with the pattern that tells it without its colour. Its name stands beside it. */
export function PaintDab({ paint, size = 16 }: { readonly paint: Paint; readonly size?: number }) {
  const id = useId();
  const { fill, stroke, pattern } = PAINT[paint];
  return (
    <Swatch width={size} height={size} viewBox="0 0 16 16" aria-hidden>
      <pattern id={id} width="8" height="8" patternUnits="userSpaceOnUse" stroke={stroke} strokeWidth="1.2">
        {pattern}
      </pattern>
      <rect x="0.75" y="0.75" width="14.5" height="14.5" rx="4" fill={fill} />
      <rect
        x="0.75"
        y="0.75"
        width="14.5"
        height="14.5"
        rx="4"
        fill={`url(#${id})`}
        stroke="var(--ink)"
        strokeWidth="1"
      />
    </Swatch>
  );
}

const Name = styled.span`
  display: inline-flex;
  align-items: center;
  gap: 0.35rem;
  vertical-align: text-bottom;
  font-weight: 600;
`;

/** A grade as it is told at the bench: its name, and where paint tells it, the dab. */
export function GradeName({
  name,
  paint,
  size = 16,
}: {
  readonly name: string;
  readonly paint: Paint | null;
  readonly size?: number;
}) {
  return (
    <Name>
      {paint && <PaintDab paint={paint} size={size} />}
      {name}
    </Name>
  );
}
