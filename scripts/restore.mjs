import { restoreBackup } from './lib/backup.mjs';

/* npm run restore -- FILE: into the data folder of ISOBAR_DATA_DIR, the app stopped. What stood there is kept beside it. */
await restoreBackup(process.env.ISOBAR_DATA_DIR ?? '.isobar', process.argv[2]);
