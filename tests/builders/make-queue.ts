import { openQueue } from '../../src/server/queue';

/* The tables of the queue, in a database that others are copied from: their app may ask for work before their worker is there. */
const boss = await openQueue(process.env.DATABASE_URL ?? '', false);
await boss.stop();
