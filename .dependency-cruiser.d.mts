import type { IConfiguration } from 'dependency-cruiser';

declare const config: IConfiguration;
export default config;
