import { render } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { ReactNode } from 'react';
import { Provider } from '../../src/ui/theme/provider';

/** Draws a part of a page as a page does, and gives a person who presses and types. */
export function draw(part: ReactNode) {
  const drawn = render(<Provider>{part}</Provider>);
  return { ...drawn, person: userEvent.setup() };
}
