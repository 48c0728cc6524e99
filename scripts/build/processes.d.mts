export declare function buildProcesses(): Promise<void>
