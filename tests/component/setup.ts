import { cleanup, configure } from '@testing-library/react';
import { afterEach } from 'vitest';

// Until it is there, however busy the machine.
configure({ asyncUtilTimeout: 300_000 });
afterEach(cleanup);
