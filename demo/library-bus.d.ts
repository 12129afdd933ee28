import type { DemoJob } from './story';
export declare const libraryBus: DemoJob;
