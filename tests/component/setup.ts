import { cleanup } from '@testing-library/react';
import { afterEach } from 'vitest';

// Files share their modules, so the library cannot know by itself where a test ends.
afterEach(cleanup);
