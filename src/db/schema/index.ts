export * from './auth';
export * from './bench';
export * from './catalogue';
export * from './fleet';
export * from './odometer';
export * from './work';
