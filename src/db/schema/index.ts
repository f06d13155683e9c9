export * from './auth';
export * from './bench';
export * from './catalogue';
export * from './fleet';
export * from './floor';
export * from './notices';
export * from './odometer';
export * from './work';
