'use client';

import { useTheme } from 'next-themes';
import { useMemo } from 'react';

/** The theme's colours as a chart needs them: it draws outside the reach of style tokens. */
interface ChartInk {
  readonly ink: string;
  readonly soft: string;
  readonly hair: string;
  readonly paper: string;
  /** From cold to hot. */
  readonly ramp: readonly string[];
}

const LIGHT: ChartInk = {
  ink: '#1B2730',
  soft: '#5A6872',
  hair: '#E6E3D8',
  paper: '#F5F3EC',
  ramp: ['#A9C0C8', '#6F98AC', '#44688F', '#4A4787', '#7A2A63', '#A3143F'],
};
const DARK: ChartInk = {
  ink: '#E9E6DC',
  soft: '#A9B5BD',
  hair: '#2E3B46',
  paper: '#18222B',
  ramp: ['#54707C', '#6F98AC', '#7FA6D6', '#A09CE8', '#D882BF', '#FF7F9F'],
};

export function useChartInk(): ChartInk {
  const { resolvedTheme } = useTheme();
  return useMemo(() => (resolvedTheme === 'dark' ? DARK : LIGHT), [resolvedTheme]);
}
