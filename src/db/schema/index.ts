export * from './auth';
export * from './catalogue';
export * from './fleet';
export * from './odometer';
export * from './work';
