/* Every form by name; loaded in the browser when a form is first used. */
export * from './due';
export * from './misfire';
export * from './parts';
export * from './people';
export * from './planning';
export * from './vehicles';
export * from './work-orders';
