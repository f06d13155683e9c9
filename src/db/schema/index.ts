export * from './auth';
export * from './bench';
export * from './catalogue';
export * from './fleet';
export * from './notices';
export * from './odometer';
export * from './work';
export * from './work-entries';
