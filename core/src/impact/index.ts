export * from './impact';
export * from './map';
export * from './twist-estimate';
